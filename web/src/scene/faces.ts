import type { Point, Prism } from "@/api/types";
import { cross, dot, middleOf, minus, plus, unit } from "./vectors";

/** The faces of a solid between two polygons, each turned outward: its sides, then both ends. */
export function facesOf({ near, far }: Prism): Point[][] {
  const middle = middleOf([...near, ...far]);
  return [...sidesOf({ near, far }), [...near], [...far]].map((face) => outward(face, middle));
}

const sidesOf = ({ near, far }: Prism): Point[][] =>
  near.map((corner, i) => {
    const next = (i + 1) % near.length;
    return [corner, near[next] as Point, far[next] as Point, far[i] as Point];
  });

function outward(face: Point[], middle: Point): Point[] {
  return dot(normalOf(face), minus(middleOf(face), middle)) < 0 ? face.toReversed() : face;
}

/** Square to a face, by its longest diagonals: a face may have corners in line. */
export function normalOf(face: readonly Point[]): Point {
  const [a, b, c, d] = [0, 1, 2, 3].map(
    (quarter) => face[Math.floor((quarter * face.length) / 4)] as Point,
  ) as [Point, Point, Point, Point];
  return unit(cross(minus(c, a), minus(d, b)));
}

/** The edges that are drawn of a solid: both ends, and those between them where it has corners. */
export function edgesOf({ near, far }: Prism): [Point, Point][] {
  const around = (polygon: readonly Point[]) =>
    polygon.map((corner, i): [Point, Point] => [corner, polygon[(i + 1) % polygon.length] as Point]);
  const between =
    near.length > MOST_CORNERS ? [] : near.map((corner, i): [Point, Point] => [corner, far[i] as Point]);
  return [...around(near), ...around(far), ...between];
}

// A section of more corners is drawn as round.
const MOST_CORNERS = 6;
const KNOCKOUT = 0.44;
const KNOCKOUT_SIDES = 14;

/** A knockout's ring on each side of a box, in its middle; inches. */
export function knockoutsOf({ near, far }: Prism): [Point, Point][] {
  if (near.length !== 4) return [];
  const middle = middleOf([...near, ...far]);
  return [...sidesOf({ near, far }), [...far]].flatMap((face) => ringOn(outward(face, middle)));
}

function ringOn(face: Point[]): [Point, Point][] {
  const normal = normalOf(face);
  const first = unit(minus(face[1] as Point, face[0] as Point));
  const second = cross(normal, first);
  const middle = plus(middleOf(face), normal, 0.02);
  const at = (i: number): Point => {
    const turn = (2 * Math.PI * i) / KNOCKOUT_SIDES;
    return plus(plus(middle, first, KNOCKOUT * Math.cos(turn)), second, KNOCKOUT * Math.sin(turn));
  };
  return Array.from({ length: KNOCKOUT_SIDES }, (_, i): [Point, Point] => [at(i), at(i + 1)]);
}

/** Lines of a grid on a wall, that far apart and where they would be on every wall of its plane. */
export function gridOn(corners: readonly Point[], apart: number): [Point, Point][] {
  const [a, b, , d] = corners as [Point, Point, Point, Point];
  return [...across(a, b, d, apart), ...across(a, d, b, apart)];
}

function* across(foot: Point, along: Point, other: Point, apart: number): Iterable<[Point, Point]> {
  const way = unit(minus(along, foot));
  const long = Math.hypot(...minus(along, foot));
  const begins = dot(foot, way);
  const first = Math.ceil(begins / apart) * apart - begins;
  for (let at = first; at < long; at += apart) {
    const here = plus(foot, way, at);
    yield [here, plus(here, minus(other, foot))];
  }
}
