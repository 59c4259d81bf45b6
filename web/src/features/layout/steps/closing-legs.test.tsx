// @vitest-environment happy-dom
import { QueryClient } from "@tanstack/react-query";
import { cleanup, fireEvent, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test } from "vitest";
import type { Plan, SharedClosing } from "@/api/types";
import { made } from "@/test/made";
import { showWithinRun, stubResizeObserver } from "@/test/within-run";
import { ClosingLegs } from "./closing-legs";

stubResizeObserver();
afterEach(cleanup);

const measure = (inches: number, reads: string) => ({ inches, reads });
const closure = {
  code: "closure",
  severity: "caution",
  place: "end.measured",
  says: "",
  remedy: "",
  fixes: [],
};
const OFF: Plan = { ...made.plan, findings: [closure as never] };
const leg = (place: string, by: SharedClosing["legs"][number]["by"], longer: boolean) => ({
  place,
  called: place === "end.at" ? "the end" : "step 1",
  at: measure(40, "40"),
  longer,
  by,
});

function answers(chosen: boolean): SharedClosing {
  const edits = [{ op: "set", place: "end.at", value: "39 1/2" }];
  return {
    legs: [leg("steps.0.at", null, false), leg("end.at", chosen ? measure(0.5, "1/2") : null, false)],
    misses: measure(0.5, "1/2"),
    left: measure(0, "0"),
    fix: chosen ? ({ says: "Share it over these: the end −1/2", edits, whole: null } as never) : null,
    why_not: chosen ? "" : "Choose the legs you doubt.",
  };
}

function shown(plan = OFF, mayWrite = true) {
  const queries = new QueryClient({ defaultOptions: { queries: { staleTime: Number.POSITIVE_INFINITY } } });
  queries.setQueryData(["closing", made.document, []], answers(false));
  queries.setQueryData(["closing", made.document, ["end.at"]], answers(true));
  return showWithinRun(<ClosingLegs />, { document: made.document, plan, mayWrite, queries });
}

const open = () => fireEvent(document.querySelector("details") as Element, opened());
function opened() {
  (document.querySelector("details") as HTMLDetailsElement).open = true;
  return new Event("toggle");
}

test("the legs that are doubted are chosen, and what each would become is shown before it is taken", async () => {
  const user = userEvent.setup();
  const edit = shown();
  open();
  expect(screen.getByText(/Choose the legs you doubt/)).toBeTruthy();
  expect(screen.queryByRole("button", { name: /Share it/ })).toBeNull();
  await user.click(screen.getByRole("checkbox", { name: /The end, 40/ }));
  expect(screen.getByText("−1/2", { exact: false, selector: "strong" })).toBeTruthy();
  await user.click(screen.getByRole("button", { name: /Share it over these/ }));
  expect(edit.mock.lastCall?.[0]).toMatchObject({ end: { at: "39 1/2" } });
});

test("nothing is offered where the run closes, or to whoever only looks", () => {
  shown(made.plan);
  expect(document.querySelector("details")).toBeNull();
  cleanup();
  shown(OFF, false);
  expect(document.querySelector("details")).toBeNull();
});
