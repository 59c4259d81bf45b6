// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { Finding } from "@/api/types";
import { WorkContext as Within, type WorkContext } from "@/features/layout/run-context";
import { made } from "@/test/made";
import { Findings } from "./findings";

afterEach(cleanup);

const FOUND: Finding = {
  code: "too_near",
  severity: "stop",
  place: "steps.0.at",
  says: "It begins too early.",
  remedy: "Give it more room.",
  fixes: [
    { says: "Make it 30", edits: [{ op: "set", place: "steps.0.at", value: "30" }] },
    { says: "Restore", edits: [{ op: "remove", place: "steps.0", value: null }] },
  ],
};

function shown(mayWrite: boolean) {
  const edit = vi.fn();
  const draft = { document: made.document, past: [], future: [] };
  render(
    <Within value={{ draft, edit, mayWrite } as unknown as WorkContext}>
      <Findings findings={[FOUND]} id="here" />
    </Within>,
  );
  return edit;
}

test("each fix is one touch, and changes the document just as it says", () => {
  const edit = shown(true);
  expect(screen.getByRole("alert").textContent).toContain("It begins too early. Give it more room.");
  fireEvent.click(screen.getByRole("button", { name: "Make it 30" }));
  fireEvent.click(screen.getByRole("button", { name: "Restore" }));
  const [changed, shorter] = edit.mock.calls.map(([document]) => document);
  expect(changed.steps[0].at).toBe("30");
  expect(changed.steps.slice(1)).toEqual(made.document.steps.slice(1));
  expect(shorter.steps).toEqual(made.document.steps.slice(1));
});

test("who may only look is told the same and offered nothing", () => {
  shown(false);
  expect(screen.getByText("Give it more room.")).toBeTruthy();
  expect(screen.queryByRole("button")).toBeNull();
});
