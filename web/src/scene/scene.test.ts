import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { Point } from "@/api/types";
import { overlap } from "@/draw/labels";
import { framed, framedBest, moved, projectionOf, turned, zoomed } from "./camera";
import { edgesOf, facesOf, gridOn, normalOf } from "./faces";
import { layLabels, leaderEnd } from "./labels";
import type { Scene } from "./model";
import { touched } from "./touched";
import { addTube, emptyMesh } from "./tube";
import { dot, middleOf, minus } from "./vectors";

const SIZE = { width: 880, height: 560 };
const MARGINS = { side: 60, top: 70, bottom: 40 };
const point = fc.tuple(
  fc.float({ min: -300, max: 300, noNaN: true }),
  fc.float({ min: -300, max: 300, noNaN: true }),
  fc.float({ min: -300, max: 300, noNaN: true }),
);
const points = fc.array(point, { minLength: 2, maxLength: 20 });
const way = fc.record({ turn: fc.integer({ min: 0, max: 359 }), rise: fc.integer({ min: -89, max: 89 }) });
const pixel = fc.tuple(fc.integer({ min: 0, max: 880 }), fc.integer({ min: 0, max: 560 }));

const EMPTY: Scene = {
  pipes: [],
  boxes: [],
  connectors: [],
  fittings: [],
  things: [],
  walls: [],
  bars: [],
  clashes: [],
  labels: [],
};
const CUBE = {
  near: [
    [0, 0, 0],
    [4, 0, 0],
    [4, 4, 0],
    [0, 4, 0],
  ] as Point[],
  far: [
    [0, 0, 2],
    [4, 0, 2],
    [4, 4, 2],
    [0, 4, 2],
  ] as Point[],
};

describe("The camera", () => {
  test("frames all there is, and fills the sheet with it", () => {
    fc.assert(
      fc.property(points, way, (seen, from) => {
        const camera = framed(from, seen, SIZE, MARGINS);
        const places = seen.map(projectionOf(camera, SIZE).place);
        const [xs, ys] = [places.map(([x]) => x), places.map(([, y]) => y)];
        expect(Math.min(...xs)).toBeGreaterThan(MARGINS.side - 0.5);
        expect(Math.max(...xs)).toBeLessThan(SIZE.width - MARGINS.side + 0.5);
        expect(Math.min(...ys)).toBeGreaterThan(MARGINS.top - 0.5);
        expect(Math.max(...ys)).toBeLessThan(SIZE.height - MARGINS.bottom + 0.5);
        const fills = Math.max(
          (Math.max(...xs) - Math.min(...xs)) / (SIZE.width - 2 * MARGINS.side),
          (Math.max(...ys) - Math.min(...ys)) / (SIZE.height - MARGINS.top - MARGINS.bottom),
        );
        // What is smaller than the largest scale has room to fill is left small.
        if (camera.scale < 59) expect(fills).toBeGreaterThan(0.99);
      }),
    );
  });

  test("keeps the place under the hand when it zooms, and follows it when it is moved", () => {
    fc.assert(
      fc.property(points, way, pixel, fc.double({ min: 0.5, max: 2, noNaN: true }), (seen, from, at, by) => {
        const camera = framed(from, seen, SIZE, MARGINS);
        const before = projectionOf(camera, SIZE);
        const here = middleOf(seen);
        const [x, y] = before.place(here);
        const closer = zoomed(camera, by, [x, y], SIZE);
        const after = projectionOf(closer, SIZE).place(here);
        expect(Math.hypot(after[0] - x, after[1] - y)).toBeLessThan(0.01);
        const pushed = projectionOf(moved(camera, at[0], at[1]), SIZE).place(here);
        expect(Math.hypot(pushed[0] - x - at[0], pushed[1] - y - at[1])).toBeLessThan(0.01);
      }),
    );
  });

  test("is to scale from every side, and goes over no pole", () => {
    const camera = framed(
      { turn: 0, rise: 0 },
      [
        [0, 0, 0],
        [100, 50, 0],
      ],
      SIZE,
      MARGINS,
    );
    const { place } = projectionOf(camera, SIZE);
    const [a, b] = [place([0, 0, 0]), place([12, 0, 0])];
    expect(b[0] - a[0]).toBeCloseTo(12 * camera.scale);
    expect(b[1]).toBeCloseTo(a[1]);
    expect(turned(camera, 0, 500).rise).toBeLessThan(90);
    expect(turned(camera, -10, 0).turn).toBe(350);
  });

  test("stands flatter to a long run in a low sheet, where it is seen larger then", () => {
    const low = { width: 880, height: 357 };
    const points = (x: number, y: number): Point[] => [
      [0, 0, 0],
      [x, y, 0],
      [x, 0, 0],
    ];
    expect(framedBest(points(138, -46), low, MARGINS).turn).toBeLessThan(32);
    expect(framedBest(points(20, 200), low, MARGINS).turn).toBe(32);
  });
});

describe("Labels", () => {
  const scene = (labels: Scene["labels"], line: Point[]): Scene => ({
    ...EMPTY,
    pipes: [{ key: "p", points: line, radius: 0.46, look: "pipe" }],
    labels,
  });

  test("lie neither on each other nor on the pipe, and no leader crosses one", () => {
    fc.assert(
      fc.property(points, (line) => {
        const camera = framed({ turn: 32, rise: 24 }, line, SIZE, MARGINS);
        const projection = projectionOf(camera, SIZE);
        const labels = line.map((at, i) => ({
          key: String(i),
          at,
          text: `Box ${i}`,
          look: "name" as const,
          rank: i,
        }));
        const laid = layLabels(scene(labels, line), projection, camera.scale, SIZE, []);
        for (const [i, one] of laid.entries()) {
          for (const other of laid.slice(i + 1)) expect(overlap(one.box, other.box)).toBe(false);
          for (const spot of line.map(projection.place))
            expect(overlap(one.box, { x: spot[0] - 1, y: spot[1] - 1, width: 2, height: 2 })).toBe(false);
          const end = leaderEnd(one);
          for (const other of laid.filter(({ label }) => label !== one.label)) {
            const middle = [(one.from[0] + end[0]) / 2, (one.from[1] + end[1]) / 2];
            const { x, y, width, height } = other.box;
            const isInside =
              (middle[0] as number) > x + 1 &&
              (middle[0] as number) < x + width - 1 &&
              (middle[1] as number) > y + 1 &&
              (middle[1] as number) < y + height - 1;
            expect(isInside).toBe(false);
          }
        }
      }),
    );
  });

  test("find room by their rank; what is chosen stands whatever is in its way", () => {
    const at: Point = [0, 0, 0];
    const many = Array.from({ length: 200 }, (_, i) => ({
      key: String(i),
      at,
      text: "A long name",
      look: "name" as const,
      rank: i,
      isChosen: i === 199,
    }));
    const camera = framed(
      { turn: 0, rise: 0 },
      [
        [-50, -30, 0],
        [50, 30, 0],
      ],
      SIZE,
      MARGINS,
    );
    const laid = layLabels(
      scene(many, [
        [-50, 0, 0],
        [50, 0, 0],
      ]),
      projectionOf(camera, SIZE),
      camera.scale,
      SIZE,
      [],
    );
    expect(laid.length).toBeLessThan(200);
    expect(laid[0]?.label.key).toBe("199");
    expect(laid[1]?.label.key).toBe("0");
  });
});

describe("Solids", () => {
  test("a tube's sides look outward and go all around", () => {
    const mesh = emptyMesh();
    addTube(
      mesh,
      [
        [0, 0, 0],
        [10, 0, 0],
        [10, 10, 0],
        [10, 10, 10],
      ],
      0.5,
      8,
    );
    const at = (i: number) => mesh.positions.slice(3 * i, 3 * i + 3) as Point;
    const normal = (i: number) => mesh.normals.slice(3 * i, 3 * i + 3) as Point;
    for (let i = 0; i < mesh.indices.length; i += 3) {
      const [a, b, c] = mesh.indices.slice(i, i + 3) as [number, number, number];
      expect(dot(normalOf([at(a), at(b), at(c), at(c)]), normal(a))).toBeGreaterThan(0);
    }
    // Every edge of the sides is of two triangles: 3 rings of 8 quads, and 2 discs of 6 triangles.
    expect(mesh.indices.length / 3).toBe(3 * 16 + 2 * 6);
  });

  test("a box's faces look outward, and a wall's grid goes by the job, not by the wall", () => {
    for (const face of facesOf(CUBE))
      expect(dot(normalOf(face), minus(middleOf(face), [2, 2, 1]))).toBeGreaterThan(0);
    expect(edgesOf(CUBE)).toHaveLength(12);
    const lines = gridOn(
      [
        [-5, 3, 0],
        [30, 3, 0],
        [30, 40, 0],
        [-5, 40, 0],
      ],
      12,
    );
    const upright = lines.filter(([a, b]) => a[0] === b[0]).map(([a]) => a[0]);
    expect(upright).toEqual([0, 12, 24]);
  });

  test("a touch chooses what is nearest, and nothing where nothing is near", () => {
    const chosen: string[] = [];
    const pipe = (key: string, y: number) => ({
      key,
      points: [
        [0, y, 0],
        [100, y, 0],
      ] as Point[],
      radius: 0.5,
      look: "pipe" as const,
      chooses: () => chosen.push(key),
    });
    const both: Scene = { ...EMPTY, pipes: [pipe("low", 0), pipe("high", 20)] };
    const camera = framed(
      { turn: 0, rise: 0 },
      [
        [0, 0, 0],
        [100, 20, 0],
      ],
      SIZE,
      MARGINS,
    );
    const projection = projectionOf(camera, SIZE);
    const [x, y] = projection.place([50, 20, 0]);
    touched(both, projection, [x, y + 5])?.();
    expect(chosen).toEqual(["high"]);
    expect(touched(both, projection, [x, y + 60])).toBeUndefined();
  });
});
