// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { MarksJudged, Plan } from "@/api/types";
import type { View } from "@/draw/projection";
import { made } from "@/test/made";
import { FlatPicture } from "./picture-flat";

afterEach(cleanup);

const SIZE = { width: 900, height: 500 };

function picture(
  plan: Plan,
  more: { view?: View; judged?: MarksJudged; onChoose?: (step: number) => void } = {},
) {
  if (!plan.picture) throw new Error("no picture");
  return render(
    <FlatPicture
      rack={undefined}
      plan={plan}
      picture={plan.picture}
      view={more.view ?? "front"}
      size={SIZE}
      chosen={null}
      onChoose={more.onChoose ?? vi.fn()}
      judged={more.judged ?? null}
    />,
  ).container;
}

const spotsOf = (d: string): [number, number][] =>
  [...d.matchAll(/(-?[\d.]+)[ ,](-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);

test("the pipe lies within the picture, whole and to one scale", () => {
  const { picture: drawn } = made.plan;
  for (const view of ["front", "top", "side"] as View[]) {
    const container = picture(made.plan, { view });
    const pipe = [...container.querySelectorAll("path")]
      .map((path) => spotsOf(path.getAttribute("d") ?? ""))
      .reduce((longest, spots) => (spots.length > longest.length ? spots : longest), []);
    expect(pipe.length).toBeGreaterThan((drawn?.lines.flat().length ?? 0) / 2);
    for (const [x, y] of pipe) {
      expect(x).toBeGreaterThan(0);
      expect(x).toBeLessThan(SIZE.width);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(SIZE.height);
    }
    cleanup();
  }
});

test("both boxes are named, and it says that it is to scale", () => {
  picture(made.plan);
  expect(screen.getByRole("img", { name: `${made.plan.name}, to scale` })).toBeTruthy();
  for (const end of [made.plan.picture?.start, made.plan.picture?.end])
    if (end?.name) expect(screen.getAllByText(end.name).length).toBeGreaterThan(0);
});

test("a bend that is touched chooses its step", () => {
  const onChoose = vi.fn();
  const container = picture(made.plan, { onChoose });
  const hands = [...container.querySelectorAll('path[stroke="transparent"]')];
  expect(hands).toHaveLength(made.plan.bends.length);
  for (const hand of hands) fireEvent.pointerDown(hand);
  expect(onChoose.mock.calls.map(([step]) => step)).toEqual(made.plan.bends.map((bend) => bend.step));
});

test("an unfinished run ends in a question mark, and laid marks draw the pipe that they would make", () => {
  picture({ ...made.plan, complete: false });
  expect(screen.getByText("?")).toBeTruthy();
  cleanup();
  picture(made.plan);
  expect(screen.queryByText("?")).toBeNull();
  expect(screen.queryByTestId("made")).toBeNull();
  cleanup();
  picture(made.plan, { judged: { lines: made.plan.picture?.lines ?? [] } as unknown as MarksJudged });
  expect(screen.getByTestId("made").getAttribute("d")?.length).toBeGreaterThan(20);
});

test("the pipes beside are drawn within the picture, as far as they go, with room for their numbers", () => {
  if (!made.lead.picture) throw new Error("no picture");
  for (const view of ["front", "plan", "side"] as View[]) {
    const { container } = render(
      <FlatPicture
        plan={made.lead}
        rack={made.rack}
        picture={made.lead.picture}
        view={view}
        size={SIZE}
        chosen={null}
        onChoose={vi.fn()}
        judged={null}
      />,
    );
    const beside = screen.getAllByTestId("beside");
    expect(beside).toHaveLength(made.rack.pipes.length - 1);
    for (const [x, y] of beside.flatMap((path) => spotsOf(path.getAttribute("d") ?? ""))) {
      expect(x).toBeGreaterThan(0);
      expect(x).toBeLessThan(SIZE.width);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(SIZE.height);
    }
    const numbers = [...container.querySelectorAll("[data-testid=rack] text")];
    const places = numbers.map(
      (one) => [Number(one.getAttribute("x")), Number(one.getAttribute("y"))] as const,
    );
    for (const [at, [x, y]] of places.entries())
      for (const [u, v] of places.slice(at + 1)) expect(Math.hypot(x - u, y - v)).toBeGreaterThan(8);
    cleanup();
  }
});
