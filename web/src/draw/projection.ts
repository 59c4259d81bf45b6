import type { Point } from "@/api/types";

export type View = "front" | "plan" | "side";
export type Flat = [number, number];

/** A point of space on the sheet of a view: x to the right, y down, inches. */
export function project([x, y, z]: Point, view: View): Flat {
  if (view === "front") return [x, -y];
  if (view === "plan") return [x, z];
  return [-z, -y];
}

export interface Frame {
  scale: number;
  place: (point: Flat) => Flat;
}

/** The largest true scale at which all `points` fit in width × height pixels below `headroom`, and where they then lie. */
export function fitTo(
  points: Flat[],
  width: number,
  height: number,
  margin: number,
  largest: number,
  headroom: number,
): Frame {
  const xs = points.map((point) => point[0]);
  const ys = points.map((point) => point[1]);
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = Math.min(
    largest,
    (width - 2 * margin) / Math.max(right - left, 1),
    (height - headroom - 2 * margin) / Math.max(bottom - top, 1),
  );
  const [dx, dy] = [
    width / 2 - (scale * (left + right)) / 2,
    (height + headroom) / 2 - (scale * (top + bottom)) / 2,
  ];
  return { scale, place: ([x, y]) => [x * scale + dx, y * scale + dy] };
}

export const polyline = (points: Flat[]): string =>
  points.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(2)} ${y.toFixed(2)}`).join("");
