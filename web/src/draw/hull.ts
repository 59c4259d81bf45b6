import type { Flat } from "./projection";

const turn = (a: Flat, b: Flat, c: Flat): number =>
  (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

/** The outline of points on the sheet: their convex hull (Andrew's monotone chain). */
export function hull(points: Flat[]): Flat[] {
  const sorted = points.toSorted((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (order: Flat[]): Flat[] => {
    const chain: Flat[] = [];
    for (const point of order) {
      while (chain.length > 1) {
        const [a, b] = [chain[chain.length - 2], chain[chain.length - 1]];
        if (!a || !b || turn(a, b, point) > 0) break;
        chain.pop();
      }
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.toReversed())];
}
