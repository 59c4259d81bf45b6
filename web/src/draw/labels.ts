import type { Flat } from "./projection";

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

export const holds = (box: Box, [x, y]: Flat): boolean =>
  x > box.x && x < box.x + box.width && y > box.y && y < box.y + box.height;

/** How badly a box would lie over other boxes and points. */
export function crowding(box: Box, boxes: Box[], points: Flat[]): number {
  return (
    4 * boxes.filter((other) => overlap(box, other)).length +
    points.filter((point) => holds(box, point)).length
  );
}

/**
 * A row for each label (given left to right) in which it touches no other. Filled from the right, each label
 * below all that begin within it, so that no leader crosses a label above it.
 */
export function rows(intervals: { from: number; to: number }[]): number[] {
  const starts: number[] = [];
  return intervals
    .toReversed()
    .map(({ from, to }) => {
      const row = starts.findLastIndex((start) => start < to) + 1;
      starts[row] = from;
      return row;
    })
    .toReversed();
}

/**
 * Where labels of these widths begin when laid in one row in their order, each as near its wanted place as the
 * others let it, between 0 and `room`; null where they do not fit. Neighbours that touch share their shift.
 */
export function inOneRow(wanted: number[], widths: number[], room: number): number[] | null {
  if (widths.reduce((sum, width) => sum + width, 0) > room) return null;
  const groups: { first: number; size: number; width: number; at: number }[] = [];
  const place = (from: number, size: number, width: number): number => {
    const before = (index: number): number => widths.slice(from, index).reduce((sum, one) => sum + one, 0);
    const shifts = wanted.slice(from, from + size).map((one, i) => one - before(from + i));
    const mean = shifts.reduce((sum, one) => sum + one, 0) / size;
    return Math.min(Math.max(mean, 0), room - width);
  };
  widths.forEach((width, first) => {
    let group = { first, size: 1, width, at: place(first, 1, width) };
    for (let last = groups.at(-1); last && last.at + last.width > group.at; last = groups.at(-1)) {
      groups.pop();
      const [from, size, wide] = [last.first, last.size + group.size, last.width + group.width];
      group = { first: from, size, width: wide, at: place(from, size, wide) };
    }
    groups.push(group);
  });
  return groups.flatMap(({ first, size, at }) => {
    let next = at;
    return widths.slice(first, first + size).map((width) => {
      const here = next;
      next += width;
      return here;
    });
  });
}
