// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, expect, test, vi } from "vitest";
import type { RunDocument, Step } from "@/api/types";
import { made } from "@/test/made";
import { showWithinRun, stubResizeObserver } from "@/test/within-run";
import { KINDS } from "@/trade/kinds";
import { newRun } from "@/trade/new-run";
import { newStep } from "./new-step";
import { NO_CONTEXT, StepContext } from "./step-context";
import { StepList } from "./step-list";
import { StepSentence } from "./step-sentence";

stubResizeObserver();
afterEach(cleanup);

const shown = (document: RunDocument, children: ReactNode, mayWrite = true) =>
  showWithinRun(children, { document, plan: made.plan, mayWrite });

test("each step is a sentence whose figures are as they were typed", () => {
  shown(made.document, <StepList />);
  const fields = screen.getAllByRole("textbox") as HTMLInputElement[];
  for (const step of made.document.steps)
    for (const [key, value] of Object.entries(step as Record<string, unknown>))
      if (typeof value === "string" && ["at", "rise", "near"].includes(key))
        expect(
          fields.some((field) => field.value === value),
          `${step.kind} ${key}`,
        ).toBe(true);
});

test("a figure that is changed changes that alone", () => {
  const edit = shown(made.document, <StepList />);
  const [first] = made.document.steps as [Step & { at: string }];
  const field = (screen.getAllByRole("textbox") as HTMLInputElement[]).find((one) => one.value === first.at);
  fireEvent.change(field as HTMLInputElement, { target: { value: "99 1/2" } });
  const [changed, place] = edit.mock.calls[0] as [RunDocument, string];
  expect(changed.steps.filter((step, at) => step !== made.document.steps[at])).toHaveLength(1);
  expect(JSON.stringify(changed)).toContain('"99 1/2"');
  expect(place).toMatch(/^steps\.\d+\./);
});

test("every kind of step can be met, and shows a field for each figure that it asks for", () => {
  for (const { kind } of KINDS) {
    const step = newStep(kind, newRun("Run", []), 0);
    render(
      <StepContext value={{ ...NO_CONTEXT, called: "Step 1", mayWrite: true, chosen: true }}>
        <StepSentence step={step} onChange={vi.fn()} />
      </StepContext>,
    );
    const asked = Object.values(step).filter((value) => value === "").length;
    const empty = (screen.queryAllByRole("textbox") as HTMLInputElement[]).filter((one) => one.value === "");
    expect(empty.length, kind).toBeGreaterThanOrEqual(asked);
    for (const field of empty) expect(field.getAttribute("aria-label"), kind).toBeTruthy();
    cleanup();
  }
});

test("a sweep's radius is typed, or taken from the pipe that it goes around", () => {
  const shown = (step: object) => {
    const onChange = vi.fn();
    cleanup();
    render(
      <StepContext value={{ ...NO_CONTEXT, called: "Step 1", mayWrite: true }}>
        <StepSentence step={step as Step} onChange={onChange} />
      </StepContext>,
    );
    return onChange;
  };
  const swept = { kind: "sweep", turn: "up", at: "60", shots: 9 };
  const given = shown({ ...swept, radius: "24" });
  fireEvent.change(screen.getByLabelText("Step 1, radius"), { target: { value: "30" } });
  expect(given.mock.lastCall?.[0]).toMatchObject({ radius: "30" });
  const around = { trade_size: "2", radius: "10", gap: "1 1/2" };
  const taken = shown({ ...swept, around });
  expect(screen.queryByLabelText("Step 1, radius")).toBeNull();
  fireEvent.change(screen.getByLabelText("Step 1, gap to the pipe that it goes around"), {
    target: { value: "2" },
  });
  expect(taken.mock.lastCall?.[0].around).toEqual({ ...around, gap: "2" });
  expect(taken.mock.lastCall?.[1]).toBe("around.gap");
});

test("who may only look has no field that can be written in, and no step to add", () => {
  shown(made.document, <StepList />, false);
  for (const field of screen.getAllByRole("textbox")) expect((field as HTMLInputElement).disabled).toBe(true);
  expect(screen.queryByRole("button", { name: /Add/ })).toBeNull();
  expect(within(document.body).queryByRole("button", { name: /^Remove / })).toBeNull();
});
