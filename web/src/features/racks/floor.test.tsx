// @vitest-environment happy-dom
import { cleanup, render, screen, within } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, expect, test } from "vitest";
import type { Floor, FloorStick } from "@/api/types";
import { made } from "@/test/made";
import { FloorDrawing } from "./floor-drawing";
import { Stages } from "./floor-stages";

afterEach(cleanup);

const WIDTH = 1000;
const second = made.floor[1] as FloorStick;
const runs = second.pipes.map((pipe) => ({
  number: pipe.number,
  id: 40 + pipe.number,
  name: pipe.name,
  status: "laid out",
  begun: [],
  document: made.racked,
})) as Floor["runs"];

const numbers = (elements: Iterable<Element>, attribute: string): number[] =>
  [...elements].map((one) => Number(one.getAttribute(attribute)));

test("the sticks lie to one scale within the sheet, and every reading stands once", () => {
  const { container } = render(<FloorDrawing stick={second} width={WIDTH} />);
  const bars = [...container.querySelectorAll("rect")];
  const [starts, lengths] = [numbers(bars, "x"), numbers(bars, "width")];
  const scales = second.pipes.map((pipe, at) => (lengths[at] ?? 0) / pipe.length.inches);
  for (const scale of scales) expect(scale).toBeCloseTo(scales[0] ?? 0, 6);
  for (const [at, start] of starts.entries()) expect(start + (lengths[at] ?? 0)).toBeLessThanOrEqual(WIDTH);
  for (const pipe of second.pipes)
    for (const mark of pipe.marks) {
      const says = mark.lifts ? `${mark.at.reads} (kick ${mark.lifts.reads})` : mark.at.reads;
      expect(screen.getAllByText(says).length).toBeGreaterThan(0);
    }
});

test("the squared line crosses every stick at the back of its 90", () => {
  const { container } = render(<FloorDrawing stick={second} width={WIDTH} />);
  const line = container.querySelector("line[stroke='var(--accent)']");
  const bars = [...container.querySelectorAll("rect")];
  const scale = (numbers(bars, "width")[0] ?? 0) / (second.pipes[0]?.length.inches ?? 1);
  for (const [at, pipe] of second.pipes.entries()) {
    const back = (Number(line?.getAttribute("x1")) - (numbers(bars, "x")[at] ?? 0)) / scale;
    expect(back).toBeCloseTo((second.line?.at ?? 0) - pipe.ahead.inches, 6);
  }
});

test("the kicks make a diagonal, and no reading stands on another", () => {
  const { container } = render(<FloorDrawing stick={second} width={WIDTH} />);
  const spots = container.querySelector("polyline")?.getAttribute("points")?.split(" ") ?? [];
  const across = spots.map((spot) => Number(spot.split(",")[0]));
  expect(across.length).toBe(second.pipes.length - 1);
  expect([...across].sort((a, b) => b - a)).toEqual(across);
  const texts = [...container.querySelectorAll("text[paint-order]")];
  const places = texts.map((one) => `${one.getAttribute("x")} ${one.getAttribute("y")}`);
  expect(new Set(places).size).toBe(places.length);
});

test("every bend of every pipe is bent once, in stages of one shoe, with a link to its bench", () => {
  render(
    <MemoryRouter>
      <Stages stick={second} runs={runs} />
    </MemoryRouter>,
  );
  const stages = within(screen.getByRole("list", { name: "Order of bending" }));
  const bends = second.stages.reduce((count, stage) => count + stage.items.length, 0);
  expect(bends).toBe(second.pipes.reduce((count, pipe) => count + pipe.marks.length, 0));
  for (const stage of second.stages)
    for (const item of stage.items) expect(stages.getAllByText(item.at.reads).length).toBeGreaterThan(0);
  expect(stages.getByText("kicks, smallest first")).toBeTruthy();
  for (const run of runs)
    expect(
      screen.getByRole("link", { name: new RegExp(`${run.number} ${run.name}`) }).getAttribute("href"),
    ).toBe(`/runs/${run.id}/bench/2`);
});

test("where all are alike it is said once", () => {
  const [first] = made.floor;
  if (!first) throw new Error("no floor");
  render(
    <MemoryRouter>
      <Stages stick={first} runs={runs} />
    </MemoryRouter>,
  );
  const alike = first.stages.find((stage) => stage.same && stage.items.length > 1);
  const who = alike?.items.map((item) => item.pipe).join(", ");
  expect(screen.getByText(new RegExp(`pipes ${who}: all at`))).toBeTruthy();
});
