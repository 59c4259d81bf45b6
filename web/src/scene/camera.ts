import type { Point } from "@/api/types";
import type { Flat } from "@/draw/projection";
import type { Size } from "@/ui/use-size";
import { dot } from "./vectors";

/** From where the scene is looked at, without perspective, so that it stays to scale: angles in degrees. */
export interface Camera {
  /** How far to the right of straight ahead one stands. */
  turn: number;
  /** How far above one stands. */
  rise: number;
  /** What lies in the middle of the sheet, in inches. */
  middle: Point;
  /** Pixels an inch. */
  scale: number;
}

const FROM_THE_RIGHT = [
  { turn: 32, rise: 24 },
  { turn: 24, rise: 18 },
  { turn: 18, rise: 13 },
];
const WORTH_IT = 1.12;
const STEEPEST = 89.9;
const LEAST_SCALE = 0.05;
const LARGEST_SCALE = 60;

export interface Axes {
  right: Point;
  up: Point;
  /** Toward whoever looks. */
  toward: Point;
}

export function axesOf({ turn, rise }: Pick<Camera, "turn" | "rise">): Axes {
  const [t, r] = [(turn * Math.PI) / 180, (rise * Math.PI) / 180];
  return {
    right: [Math.cos(t), 0, -Math.sin(t)],
    up: [-Math.sin(t) * Math.sin(r), Math.cos(r), -Math.cos(t) * Math.sin(r)],
    toward: [Math.sin(t) * Math.cos(r), Math.sin(r), Math.cos(t) * Math.cos(r)],
  };
}

/** Where a point comes to lie on the sheet, in pixels, y down; and how near it is, in inches. */
export interface Projection {
  place: (point: Point) => Flat;
  nearness: (point: Point) => number;
}

export function projectionOf(camera: Camera, size: Size): Projection {
  const { right, up, toward } = axesOf(camera);
  const [x0, y0] = [dot(camera.middle, right), dot(camera.middle, up)];
  const [cx, cy] = [size.width / 2, size.height / 2];
  return {
    place: (point) => [
      cx + (dot(point, right) - x0) * camera.scale,
      cy - (dot(point, up) - y0) * camera.scale,
    ],
    nearness: (point) => dot(point, toward),
  };
}

/** What stays free around what is framed, in pixels: labels need room, the view's control lies at the top. */
export interface Margins {
  side: number;
  top: number;
  bottom: number;
}

/** The same direction, so that all points fill the sheet. */
export function framed(
  way: Pick<Camera, "turn" | "rise">,
  points: readonly Point[],
  size: Size,
  margins: Margins,
): Camera {
  const { right, up, toward } = axesOf(way);
  const [xs, ys, zs] = [right, up, toward].map((axis) => points.map((point) => dot(point, axis)));
  const [x, y, z] = [spanOf(xs), spanOf(ys), spanOf(zs)];
  const room = {
    width: Math.max(size.width - 2 * margins.side, 40),
    height: Math.max(size.height - margins.top - margins.bottom, 40),
  };
  const scale = within(Math.min(room.width / Math.max(x.long, 1), room.height / Math.max(y.long, 1)));
  // The sheet's middle lies lower than that of the room by half of what is kept free more at the top.
  const lift = (margins.top - margins.bottom) / 2 / scale;
  const mid = [x.middle, y.middle + lift, z.middle] as const;
  const at = (axis: 0 | 1 | 2) => right[axis] * mid[0] + up[axis] * mid[1] + toward[axis] * mid[2];
  return { ...way, middle: [at(0), at(1), at(2)], scale };
}

/** From the front right; flatter where the whole is seen so much larger then, as a long run is. */
export function framedBest(points: readonly Point[], size: Size, margins: Margins): Camera {
  const [usual, ...others] = FROM_THE_RIGHT.map((way) => framed(way, points, size, margins));
  return others.reduce((best, one) => (one.scale > best.scale * WORTH_IT ? one : best), usual as Camera);
}

function spanOf(values: number[] | undefined): { middle: number; long: number } {
  const [low, high] = (values ?? []).reduce(
    ([least, most], value) => [Math.min(least, value), Math.max(most, value)],
    [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY],
  );
  return Number.isFinite(low) ? { middle: (low + high) / 2, long: high - low } : { middle: 0, long: 1 };
}

const within = (scale: number): number => Math.min(Math.max(scale, LEAST_SCALE), LARGEST_SCALE);

/** Turned by so many degrees; nobody goes over the top. */
export const turned = (camera: Camera, right: number, up: number): Camera => ({
  ...camera,
  turn: (((camera.turn + right) % 360) + 360) % 360,
  rise: Math.min(Math.max(camera.rise + up, -STEEPEST), STEEPEST),
});

/** Moved by so many pixels on the sheet. */
export function moved(camera: Camera, x: number, y: number): Camera {
  const { right, up } = axesOf(camera);
  const [dx, dy] = [-x / camera.scale, y / camera.scale];
  const at = (axis: 0 | 1 | 2) => camera.middle[axis] + right[axis] * dx + up[axis] * dy;
  return { ...camera, middle: [at(0), at(1), at(2)] };
}

/** Nearer by a factor, while the place under a pixel stays where it is. */
export function zoomed(camera: Camera, by: number, at: Flat, size: Size): Camera {
  const scale = within(camera.scale * by);
  const off: Flat = [at[0] - size.width / 2, at[1] - size.height / 2];
  const grown = scale / camera.scale - 1;
  return moved({ ...camera, scale }, -off[0] * grown, -off[1] * grown);
}
