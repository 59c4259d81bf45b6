import { describe, expect, it } from "vitest";
import type { Point } from "@/api/types";
import { layDimensions } from "./dimensions";
import { divisionOf, farOf, nudged, toTape } from "./fractions";
import { hull } from "./hull";
import { type Box, inOneRow, overlap, rows } from "./labels";
import { type Flat, fitTo, project } from "./projection";

describe("readings", () => {
  it("are written as on the tape", () => {
    expect([71.5, 0, 0.0625, 12, 3.875].map((inches) => toTape(inches))).toEqual([
      "71 1/2",
      "0",
      "1/16",
      "12",
      "3 7/8",
    ]);
  });

  it("are nudged by sixteenths and never below nothing", () => {
    expect(nudged(71.5, 1 / 16, "1/16")).toBe(71.5625);
    expect(nudged(71.5, -1, "1/16")).toBe(70.5);
    expect(nudged(0, -1 / 16, "1/16")).toBe(0);
  });

  it("are millimetres on a metric tape", () => {
    expect(toTape(71.5, "1 mm")).toBe("1816");
    expect(toTape(nudged(71.5, divisionOf("1 mm"), "1 mm"), "1 mm")).toBe("1817");
    expect(toTape(nudged(71.5, -farOf("1 mm"), "1 mm"), "1 mm")).toBe("1806");
  });
});

describe("labels", () => {
  const spans = [
    { from: 0, to: 60 },
    { from: 40, to: 100 },
    { from: 90, to: 150 },
    { from: 300, to: 360 },
  ];

  it("in one row never touch", () => {
    const placed = rows(spans);
    spans.forEach((a, i) => {
      spans.forEach((b, j) => {
        if (i < j && placed[i] === placed[j]) expect(a.to <= b.from || b.to <= a.from).toBe(true);
      });
    });
    expect(placed[3]).toBe(0);
  });

  it("lie so that no leader crosses a label above it", () => {
    const placed = rows(spans);
    spans.forEach((low, i) => {
      spans.forEach((high, j) => {
        if ((placed[i] ?? 0) > (placed[j] ?? 0))
          expect(low.from < high.from || low.from > high.to).toBe(true);
      });
    });
  });
});

describe("labels in one row", () => {
  it("stay where they want to be where there is room", () => {
    expect(inOneRow([10, 200, 400], [50, 50, 50], 600)).toEqual([10, 200, 400]);
  });

  it("make room for each other, keep their order and stay on the sheet", () => {
    const widths = [80, 60, 70, 80];
    const laid = inOneRow([100, 105, 110, 590], widths, 640) ?? [];
    laid.forEach((at, i) => {
      expect(at).toBeGreaterThanOrEqual(0);
      expect(at + (widths[i] ?? 0)).toBeLessThanOrEqual((laid[i + 1] ?? 640) + 1e-9);
    });
    expect(inOneRow([0, 0], [400, 400], 640)).toBeNull();
  });
});

describe("outlines", () => {
  it("hold every point and no more", () => {
    const corners: Flat[] = [
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ];
    const outline = hull([...corners, [2, 1], [3, 2], [4, 1.5]]);
    expect(outline).toHaveLength(4);
    for (const corner of corners) expect(outline).toContainEqual(corner);
  });
});

describe("views", () => {
  const out: Point = [0, 0, 1];

  it("show what is out of the wall where it is", () => {
    expect(project([2, 3, 5], "front")).toEqual([2, -3]);
    expect(project(out, "plan")).toEqual([0, 1]);
    expect(project(out, "side")[0]).toBe(-1);
  });

  it("fit everything at one true scale, below the headroom", () => {
    const points: Flat[] = [
      [0, 0],
      [90, -70],
    ];
    const frame = fitTo(points, 800, 400, 50, 100, 30);
    const [a, b] = points.map(frame.place) as [Flat, Flat];
    expect((b[0] - a[0]) / 90).toBeCloseTo(frame.scale);
    expect((a[1] - b[1]) / 70).toBeCloseTo(frame.scale);
    for (const [x, y] of [a, b]) {
      expect(x).toBeGreaterThanOrEqual(49.9);
      expect(y).toBeGreaterThanOrEqual(79.9);
      expect(y).toBeLessThanOrEqual(350.1);
    }
  });
});

describe("dimensions", () => {
  const sheet: Box = { x: 0, y: 0, width: 800, height: 500 };
  const pipe: Flat[] = Array.from({ length: 60 }, (_, i) => [100 + 8 * i, 250]);

  it("keep their labels off the pipe, off each other and on the sheet", () => {
    const wanted = [
      { from: [100, 250], to: [500, 250], text: "71 1/2" },
      { from: [100, 250], to: [300, 250], text: "41 1/4" },
      { from: [300, 250], to: [300, 270], text: "2 1/4" },
    ] as { from: Flat; to: Flat; text: string }[];
    const laid = layDimensions(wanted, pipe, [], sheet);
    expect(laid).toHaveLength(3);
    laid.forEach((one, i) => {
      expect(pipe.some(([x, y]) => overlap(one.label, { x, y, width: 0, height: 0 }))).toBe(false);
      for (const other of laid.slice(i + 1)) expect(overlap(one.label, other.label)).toBe(false);
      expect(one.label.x >= 0 && one.label.x + one.label.width <= 800).toBe(true);
    });
  });

  it("leave out what a view cannot show", () => {
    expect(layDimensions([{ from: [5, 5], to: [5, 6], text: "3" }], pipe, [], sheet)).toEqual([]);
  });
});
