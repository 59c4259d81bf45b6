// @vitest-environment happy-dom
import { act, cleanup, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { CutBar, type DrawnBar, sawLabels } from "./cut-bar";

let resized: (width: number) => void = () => undefined;

beforeEach(() => {
  vi.stubGlobal(
    "ResizeObserver",
    class {
      constructor(told: (entries: unknown[]) => void) {
        resized = (width) => told([{ contentRect: { width, height: 0 } }]);
      }
      observe() {}
      disconnect() {}
    },
  );
});

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const measure = (inches: number) => ({ inches, reads: String(inches) });
const cut = (key: string, from: number, to: number, more = {}) => ({
  key,
  run_name: "Kiln 2 feed",
  piece: 1,
  start: measure(from),
  end: measure(to),
  length: measure(to - from),
  ...more,
});
const BAR: DrawnBar = {
  name: "S3",
  about: ", bay 2",
  length: measure(100),
  cuts: [cut("a", 0, 40), cut("b", 40.0625, 60.0625, { done: true })],
  left: "39 7/8 goes to the rack",
};

function shown(width: number, bar = BAR, captions = false) {
  const { container } = render(<CutBar bar={bar} longest={120} captions={captions} />);
  act(() => resized(width));
  return container;
}

test("cuts and saw marks stand to scale on the bar", () => {
  const scale = 1200 / 120;
  const container = shown(1200);
  const saws = [...container.querySelectorAll('line[stroke="var(--accent)"]')];
  expect(saws.map((saw) => Number(saw.getAttribute("x1")))).toEqual([40 * scale, 60.0625 * scale]);
  const done = container.querySelector('rect[fill="var(--tint)"]');
  expect(Number(done?.getAttribute("x"))).toBeCloseTo(40.0625 * scale + 1, 6);
  expect(Number(done?.getAttribute("width"))).toBeCloseTo(20 * scale - 2, 6);
  expect(screen.getByText("39 7/8 goes to the rack")).toBeTruthy();
  expect(screen.getByRole("img").getAttribute("aria-label")).toBe("40 for Kiln 2 feed, 20 for Kiln 2 feed");
});

test("a piece that takes the whole bar is not sawn", () => {
  const container = shown(1200, { ...BAR, cuts: [cut("a", 0, 100)], left: "" });
  expect(container.querySelectorAll('line[stroke="var(--accent)"]')).toHaveLength(0);
});

test("names that have no room on the bar stand beneath it", () => {
  shown(300, BAR, true);
  expect(screen.queryByText("39 7/8 goes to the rack")).toBeNull();
  expect(screen.getAllByText(/Kiln 2 feed · piece 1/)).toHaveLength(2);
  cleanup();
  shown(2400, BAR, true);
  expect(screen.getAllByText(/Kiln 2 feed · piece 1/).every((one) => one.tagName === "tspan")).toBe(true);
});

test("nothing is drawn before its width is known", () => {
  render(<CutBar bar={BAR} longest={120} />);
  expect(screen.queryByRole("img")).toBeNull();
  expect(screen.getByText("S3")).toBeTruthy();
});

test("what is said of the saw never lies over what is said of it elsewhere", () => {
  const cuts = [cut("a", 0, 80), cut("b", 80.0625, 95), cut("c", 95.0625, 99)];
  const rows = sawLabels(cuts, 4, 400).map((label) => [label.toLeft, label.row]);
  expect(rows).toEqual([
    [false, 0],
    [true, 1],
    [true, 2],
  ]);
  expect(sawLabels([cut("a", 0, 30), cut("b", 31, 60)], 8, 960).map((label) => label.row)).toEqual([0, 0]);
});
