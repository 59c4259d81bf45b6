import type { Box } from "@/draw/labels";
import type { Flat } from "@/draw/projection";
import type { Size } from "@/ui/use-size";
import type { Projection } from "./camera";
import { LEAST_THICK, type Scene, type SceneLabel } from "./model";

/** A label where it stands; its leader goes from `from` to the nearest side of `box`. */
export interface LaidLabel {
  label: SceneLabel;
  box: Box;
  from: Flat;
}

const CELL = 8;
// Kept free beside pipe, in pixels.
const CLEAR = 4;
// Of a leader, in half cells.
const BEGINS = 4;
const HEIGHT = { name: 24, number: 24, figure: 22, clash: 26 };
const LETTER = { name: 8.2, number: 10, figure: 8.4, clash: 8.2 };
const PADDING = { name: 8, number: 14, figure: 8, clash: 16 };
// How far from its place a label is tried, in pixels, and in which directions, the likeliest first.
const AWAY = [16, 34, 56, 84, 120];
const DIRECTIONS = [60, 120, 0, 180, -60, -120, 30, 150, -30, -150, 90, -90].map((degrees): Flat => {
  const angle = (degrees * Math.PI) / 180;
  return [Math.cos(angle), -Math.sin(angle)];
});

/** Which cells of the sheet are taken: by pipe, by boxes, by labels that stand. */
class Taken {
  private readonly cells: Uint8Array;
  private readonly columns: number;
  private readonly rows: number;

  constructor(private readonly size: Size) {
    this.columns = Math.ceil(size.width / CELL) + 1;
    this.rows = Math.ceil(size.height / CELL) + 1;
    this.cells = new Uint8Array(this.columns * this.rows);
  }

  take(box: Box) {
    this.each(box, (cell) => {
      this.cells[cell] = 1;
      return true;
    });
  }

  takeLine(a: Flat, b: Flat, thick: number) {
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const steps = Math.min(Math.ceil(long / CELL), 2000);
    for (let i = 0; i <= steps; i++) {
      const part = steps ? i / steps : 0;
      const [x, y] = [a[0] + (b[0] - a[0]) * part, a[1] + (b[1] - a[1]) * part];
      this.take({ x: x - thick / 2, y: y - thick / 2, width: thick, height: thick });
    }
  }

  /** Whether a line runs through what is taken; not where it begins, at which others may begin too. */
  isCrossed(a: Flat, b: Flat): boolean {
    const steps = Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1]) / (CELL / 2));
    for (let i = BEGINS; i <= steps; i++) {
      const part = steps ? i / steps : 0;
      const [x, y] = [a[0] + (b[0] - a[0]) * part, a[1] + (b[1] - a[1]) * part];
      if (!this.each({ x, y, width: 0, height: 0 }, (cell) => !this.cells[cell])) return true;
    }
    return false;
  }

  isFree(box: Box): boolean {
    const { width, height } = this.size;
    if (box.x < 4 || box.y < 4 || box.x + box.width > width - 4 || box.y + box.height > height - 4)
      return false;
    return this.each(box, (cell) => !this.cells[cell]);
  }

  private each(box: Box, act: (cell: number) => boolean): boolean {
    const [left, right] = [Math.max(Math.floor(box.x / CELL), 0), Math.floor((box.x + box.width) / CELL)];
    const [top, bottom] = [Math.max(Math.floor(box.y / CELL), 0), Math.floor((box.y + box.height) / CELL)];
    for (let row = top; row <= Math.min(bottom, this.rows - 1); row++)
      for (let column = left; column <= Math.min(right, this.columns - 1); column++)
        if (!act(row * this.columns + column)) return false;
    return true;
  }
}

/**
 * Labels where they lie neither on each other nor on pipe or boxes: those of the lowest rank first, of a rank the
 * nearest to whoever looks. One that finds no room is left out, but for what is chosen.
 */
export function layLabels(
  scene: Scene,
  { place, nearness }: Projection,
  scale: number,
  size: Size,
  inTheWay: readonly Box[],
): LaidLabel[] {
  const taken = new Taken(size);
  for (const box of inTheWay) taken.take(box);
  for (const { points, radius } of scene.pipes) {
    const flat = points.map(place);
    const thick = Math.max(2 * radius * scale, LEAST_THICK) + CLEAR;
    flat.slice(1).forEach((end, i) => {
      taken.takeLine(flat[i] ?? end, end, thick);
    });
  }
  for (const { body } of [...scene.boxes, ...scene.things])
    taken.take(around([...body.near, ...body.far].map(place)));
  const inTurn = [...scene.labels].sort(
    (a, b) =>
      Number(b.isChosen ?? false) - Number(a.isChosen ?? false) ||
      a.rank - b.rank ||
      nearness(b.at) - nearness(a.at),
  );
  const laid: LaidLabel[] = [];
  // Labels and their leaders, which no other leader crosses.
  const written = new Taken(size);
  for (const label of inTurn) {
    const from = place(label.at);
    if (from[0] < 0 || from[1] < 0 || from[0] > size.width || from[1] > size.height) continue;
    const box = placed(label, from, taken, written);
    if (!box) continue;
    const one = { label, box, from };
    taken.take(box);
    written.take(box);
    for (const grid of [taken, written]) grid.takeLine(from, leaderEnd(one), 2);
    laid.push(one);
  }
  return laid;
}

function placed(label: SceneLabel, from: Flat, taken: Taken, written: Taken): Box | null {
  const height = HEIGHT[label.look];
  const width = label.text.length * LETTER[label.look] + PADDING[label.look];
  for (const far of AWAY)
    for (const [x, y] of DIRECTIONS) {
      const middle: Flat = [from[0] + x * (far + width / 2), from[1] + y * (far + height / 2)];
      const box = { x: middle[0] - width / 2, y: middle[1] - height / 2, width, height };
      if (taken.isFree(box) && !written.isCrossed(from, leaderEnd({ box, from }))) return box;
    }
  return label.isChosen ? { x: from[0] + 12, y: from[1] - height - 12, width, height } : null;
}

function around(points: Flat[]): Box {
  const xs = points.map((point) => point[0]);
  const ys = points.map((point) => point[1]);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}

/** Where a leader meets its label. */
export const leaderEnd = ({ box, from }: Pick<LaidLabel, "box" | "from">): Flat => [
  Math.min(Math.max(from[0], box.x), box.x + box.width),
  Math.min(Math.max(from[1], box.y), box.y + box.height),
];
