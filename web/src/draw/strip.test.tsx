// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { asPiece } from "@/features/bench/sheet-piece";
import { made } from "@/test/made";
import { StickStrip } from "./strip";

afterEach(cleanup);

const SIDE = 34;
const PIECES = [asPiece(made.sheet), ...made.plan.pieces];
const WIDTHS = [358, 600, 900, 1280, 2400];

const numbersOf = (element: Element, ...names: string[]): number[] =>
  names.map((name) => Number(element.getAttribute(name)));

function strip(piece: (typeof PIECES)[number], width: number, onChoose = vi.fn()) {
  const shown = render(
    <StickStrip piece={piece} width={width} longest={120} chosenBends={[]} onChoose={onChoose} />,
  );
  return shown.container.querySelector("svg") as SVGSVGElement;
}

test("each pencil mark stands at its inches, to scale, at any width", () => {
  for (const piece of PIECES)
    for (const width of WIDTHS) {
      const scale = (width - 2 * SIDE) / 120;
      const drawn = [...strip(piece, width).querySelectorAll("g > line")].map(
        (line) => numbersOf(line, "x1")[0],
      );
      for (const bend of piece.bends) {
        const at = SIDE + bend.use.at.inches * scale;
        expect(drawn.some((x) => Math.abs((x ?? -1) - at) < 0.01)).toBe(true);
      }
      cleanup();
    }
});

test("arcs lie where they are bent, and take the pipe that they use", () => {
  const piece = asPiece(made.sheet);
  const arcs = [...strip(piece, 1280).querySelectorAll('rect[fill="var(--bend)"]')];
  const scale = (1280 - 2 * SIDE) / 120;
  expect(arcs).toHaveLength(piece.bends.length);
  arcs.forEach((arc, at) => {
    const bend = piece.bends[at];
    const [x, wide] = numbersOf(arc, "x", "width");
    expect(x).toBeCloseTo(SIDE + (bend?.arc_start ?? 0) * scale, 6);
    expect(wide).toBeCloseTo(((bend?.arc_end ?? 0) - (bend?.arc_start ?? 0)) * scale, 6);
  });
});

test("no label lies over another or out of the picture where the picture is wide enough for them", () => {
  for (const piece of PIECES)
    for (const width of [900, 1280, 2400]) {
      const labels = [...strip(piece, width).querySelectorAll('rect[fill="var(--sheet)"]')].map((label) => {
        const [x = 0, y = 0, wide = 0] = numbersOf(label, "x", "y", "width");
        return { x, y, to: x + wide };
      });
      labels.forEach((one, i) => {
        expect(one.x).toBeGreaterThanOrEqual(0);
        expect(one.to).toBeLessThanOrEqual(width);
        for (const other of labels.slice(i + 1))
          expect(one.y !== other.y || one.to <= other.x || other.to <= one.x).toBe(true);
      });
      cleanup();
    }
});

test("it is told to those who hear the screen, and a mark that is touched is chosen", () => {
  const onChoose = vi.fn();
  const piece = asPiece(made.sheet);
  const svg = strip(piece, 1280, onChoose);
  const readings = piece.bends.map((bend) => bend.use.at).toSorted((a, b) => a.inches - b.inches);
  expect(screen.getByRole("img").getAttribute("aria-label")).toContain(
    `marks at ${readings.map((one) => one.reads).join(", ")}`,
  );
  const marks = [...svg.querySelectorAll("g")].filter((mark) => mark.querySelector(":scope > line"));
  for (const mark of marks) fireEvent.pointerDown(mark.querySelector("line") as Element);
  expect(onChoose.mock.calls.map(([number]) => number).toSorted()).toEqual(
    piece.bends.map((bend) => bend.number).toSorted(),
  );
});
