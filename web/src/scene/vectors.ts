import type { Point } from "@/api/types";

export const dot = (a: Point, b: Point): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const plus = (a: Point, b: Point, times = 1): Point => [
  a[0] + b[0] * times,
  a[1] + b[1] * times,
  a[2] + b[2] * times,
];
export const cross = (a: Point, b: Point): Point => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const unit = (a: Point): Point => {
  const long = Math.hypot(...a) || 1;
  return [a[0] / long, a[1] / long, a[2] / long];
};
/** Some direction at right angles to another. */
export const squareTo = (a: Point): Point => unit(cross(a, Math.abs(a[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0]));
export const middleOf = (points: readonly Point[]): Point => {
  const sum = points.reduce<Point>((all, point) => plus(all, point), [0, 0, 0]);
  const count = points.length || 1;
  return [sum[0] / count, sum[1] / count, sum[2] / count];
};
