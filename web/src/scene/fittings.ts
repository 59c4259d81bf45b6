import type { Point } from "@/api/types";
import type { SceneConnector, SceneFitting } from "./model";
import { plus, unit } from "./vectors";

/** A round bar that stands for a part of a fitting. */
export interface Bar {
  points: [Point, Point];
  radius: number;
}

const bar = (at: Point, way: Point, from: number, to: number, radius: number): Bar => ({
  points: [plus(at, way, from), plus(at, way, to)],
  radius,
});

/** A coupling with its two collars, a strap's band, or a pull point's body, as round bars along the pipe. */
export function fittingBars({ kind, point, heading, radius }: SceneFitting): Bar[] {
  const way = unit(heading);
  if (kind === "pull_point") return [bar(point, way, -2, 2, radius + 1.2)];
  if (kind === "strap") return [bar(point, way, -0.4, 0.4, radius + 0.12)];
  const half = radius + 0.75;
  return [
    bar(point, way, -half, half, radius + 0.12),
    bar(point, way, -half, -half * 0.55, radius + 0.25),
    bar(point, way, half * 0.55, half, radius + 0.25),
  ];
}

/** A connector at a box: its body, and the locknut against the wall of the box. */
export function connectorBars({ point, into, radius }: SceneConnector): Bar[] {
  const way = unit(into);
  return [bar(point, way, 0, radius + 0.75, radius + 0.2), bar(point, way, 0, 0.22, radius + 0.42)];
}
