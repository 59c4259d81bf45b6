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
