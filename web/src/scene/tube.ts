import type { Point } from "@/api/types";
import { cross, dot, minus, plus, squareTo, unit } from "./vectors";

/** Triangles with a normal at each corner, and how thick the pipe is that they are of. */
export interface Mesh {
  positions: number[];
  normals: number[];
  radii: number[];
  indices: number[];
}

export const emptyMesh = (): Mesh => ({ positions: [], normals: [], radii: [], indices: [] });

/** Adds a round bar along points to a mesh: rings that turn with it as little as they can, closed by a disc at each end. */
export function addTube(mesh: Mesh, points: readonly Point[], radius: number, sides: number) {
  const path = points.filter((point, i) => !i || Math.hypot(...minus(point, points[i - 1] ?? point)) > 1e-6);
  if (path.length < 2) return;
  const ways = path.map((point, i) => unit(minus(path[i + 1] ?? point, path[i - 1] ?? point)));
  let side = squareTo(ways[0] as Point);
  const first = count(mesh);
  path.forEach((point, i) => {
    const way = ways[i] as Point;
    // Carried along without twist: what leans along the way is taken off.
    side = unit(plus(side, way, -dot(side, way)));
    addRing(mesh, point, side, cross(way, side), radius, sides, 0, way);
  });
  for (let ring = 0; ring < path.length - 1; ring++) stitch(mesh, first + ring * sides, sides);
  addCap(mesh, path[0] as Point, ways[0] as Point, radius, sides, true);
  addCap(mesh, path.at(-1) as Point, ways.at(-1) as Point, radius, sides, false);
}

const count = (mesh: Mesh): number => mesh.radii.length;

function addRing(
  mesh: Mesh,
  at: Point,
  side: Point,
  beside: Point,
  radius: number,
  sides: number,
  flat: number,
  way: Point,
) {
  for (let i = 0; i < sides; i++) {
    const angle = (2 * Math.PI * i) / sides;
    const out = plus(plus([0, 0, 0], side, Math.cos(angle)), beside, Math.sin(angle));
    mesh.positions.push(...plus(at, out, radius));
    mesh.normals.push(...(flat ? plus([0, 0, 0], way, flat) : out));
    mesh.radii.push(radius);
  }
}

function stitch(mesh: Mesh, ring: number, sides: number) {
  for (let i = 0; i < sides; i++) {
    const [a, b] = [ring + i, ring + ((i + 1) % sides)];
    const [c, d] = [a + sides, b + sides];
    mesh.indices.push(a, b, c, b, d, c);
  }
}

function addCap(mesh: Mesh, at: Point, way: Point, radius: number, sides: number, isFirst: boolean) {
  const side = squareTo(way);
  const ring = count(mesh);
  addRing(mesh, at, side, cross(way, side), radius, sides, isFirst ? -1 : 1, way);
  for (let i = 1; i < sides - 1; i++)
    mesh.indices.push(ring, ...(isFirst ? [ring + i + 1, ring + i] : [ring + i, ring + i + 1]));
}
