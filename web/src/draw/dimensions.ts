import { readingWidth } from "./fractions";
import { type Box, crowding, holds, overlap } from "./labels";
import type { Flat } from "./projection";

/** A dimension laid out on the sheet: its line beside what it measures, and its label on the line. */
export interface LaidDimension {
  index: number;
  ends: [Flat, Flat];
  line: [Flat, Flat];
  label: Box;
}

export interface Wanted {
  from: Flat;
  to: Flat;
  text: string;
  /** Is shown whatever it lies on. */
  kept?: boolean;
}

const OFFSETS = [34, -34, 62, -62, 92, -92, 122, -122, 152, -152];
export const LABEL_SIZE = 22;
const HEIGHT = 26;
const SHORTEST = 10;

/** Put each dimension's line where its label hides the least of the pipe and of the other labels. */
export function layDimensions(
  wanted: Wanted[],
  obstacles: Flat[],
  inTheWay: Box[],
  sheet: Box,
): LaidDimension[] {
  const taken = [...inTheWay];
  const laid: LaidDimension[] = [];
  wanted.forEach((one, index) => {
    const length = Math.hypot(one.to[0] - one.from[0], one.to[1] - one.from[1]);
    if (length < SHORTEST) return;
    const across: Flat = [(one.to[1] - one.from[1]) / length, (one.from[0] - one.to[0]) / length];
    const tries = OFFSETS.flatMap((offset) => candidates(one, index, across, offset));
    const drawn = laid.flatMap((other) => along(other.line));
    const cost = (one: LaidDimension) =>
      4 * crowding(one.label, taken, obstacles) +
      spread(one.line, obstacles) +
      spread(one.line, drawn) +
      12 * taken.filter((box) => along(one.line).some((point) => holds(box, point))).length +
      distance(one) / 60 +
      (inside(one.label, sheet) ? 0 : 50);
    const best = tries.reduce((a, b) => (cost(b) < cost(a) ? b : a));
    // What finds no room is left out: the figure stands in its sentence all the same.
    if (!one.kept && taken.some((box) => overlap(box, best.label))) return;
    taken.push(best.label);
    laid.push(best);
  });
  return laid;
}

/** The ways to draw one dimension so far aside: its label on the line or, where that is too short, past an end. */
function candidates(one: Wanted, index: number, across: Flat, offset: number): LaidDimension[] {
  const shift = ([x, y]: Flat): Flat => [x + across[0] * offset, y + across[1] * offset];
  const [a, b]: [Flat, Flat] = [shift(one.from), shift(one.to)];
  const width = readingWidth(one.text, LABEL_SIZE) + 12;
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const level = Math.abs(b[0] - a[0]) > Math.abs(b[1] - a[1]);
  const short = length < (level ? width + 12 : HEIGHT + 12);
  const reach = (level ? width : HEIGHT) / 2 + 8;
  const beyond = (from: Flat, to: Flat): Flat => [
    to[0] + ((to[0] - from[0]) / length) * reach,
    to[1] + ((to[1] - from[1]) / length) * reach,
  ];
  const middles: Flat[] = short ? [beyond(a, b), beyond(b, a)] : [[(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]];
  return middles.map(([x, y]) => ({
    index,
    ends: [one.from, one.to],
    line: [a, b],
    label: { x: x - width / 2, y: y - HEIGHT / 2, width, height: HEIGHT },
  }));
}

const distance = ({ ends, line }: LaidDimension): number =>
  Math.hypot(line[0][0] - ends[0][0], line[0][1] - ends[0][1]);

/** Points every few pixels along a dimension's line. */
function along([a, b]: [Flat, Flat]): Flat[] {
  const count = Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1]) / 8);
  return Array.from(
    { length: count + 1 },
    (_, i): Flat => [a[0] + ((b[0] - a[0]) * i) / count, a[1] + ((b[1] - a[1]) * i) / count],
  );
}

const inside = (box: Box, sheet: Box): boolean =>
  box.x >= sheet.x &&
  box.y >= sheet.y &&
  box.x + box.width <= sheet.x + sheet.width &&
  box.y + box.height <= sheet.y + sheet.height;

/** How much of the pipe lies within a few pixels of a dimension's line. */
function spread([a, b]: [Flat, Flat], points: Flat[]): number {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const near = points.filter(([x, y]) => {
    const along = ((x - a[0]) * (b[0] - a[0]) + (y - a[1]) * (b[1] - a[1])) / length;
    const aside = Math.abs((x - a[0]) * (b[1] - a[1]) - (y - a[1]) * (b[0] - a[0])) / length;
    return along > -4 && along < length + 4 && aside < 14;
  });
  return near.length / 4;
}
