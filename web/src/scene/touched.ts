import type { Flat } from "@/draw/projection";
import type { Projection } from "./camera";
import type { Scene } from "./model";

/** As far from a place as a finger may be, in pixels. */
const REACH = 16;

/** What of the scene a touch chooses: the nearest within a finger's reach, of several the one in front. */
export function touched(scene: Scene, { place, nearness }: Projection, at: Flat): (() => void) | undefined {
  const things = [
    ...scene.clashes.map(({ at: point, chooses }) => ({ points: [point], chooses, thick: 10 })),
    ...scene.pipes.map(({ points, chooses }) => ({ points, chooses, thick: 0 })),
    ...[...scene.boxes, ...scene.things].map(({ body, chooses }) => ({
      points: [...body.near, ...body.far, ...body.near.slice(0, 1)],
      chooses,
      thick: 6,
    })),
  ];
  let best: { far: number; near: number; chooses: () => void } | undefined;
  for (const { points, chooses, thick } of things) {
    if (!chooses) continue;
    const far = Math.max(0, distance(points.map(place), at) - thick);
    const near = Math.max(...points.map(nearness));
    if (far < REACH && (!best || far < best.far - 4 || (far < best.far + 4 && near > best.near)))
      best = { far, near, chooses };
  }
  return best?.chooses;
}

function distance(line: Flat[], at: Flat): number {
  if (line.length === 1) return apart(line[0] as Flat, at);
  return Math.min(...line.slice(1).map((end, i) => toSegment(line[i] as Flat, end, at)));
}

const apart = (a: Flat, b: Flat): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

function toSegment(a: Flat, b: Flat, at: Flat): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const long = dx * dx + dy * dy;
  const part = long ? Math.min(1, Math.max(0, ((at[0] - a[0]) * dx + (at[1] - a[1]) * dy) / long)) : 0;
  return apart([a[0] + dx * part, a[1] + dy * part], at);
}
