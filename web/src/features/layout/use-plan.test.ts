import { expect, test } from "vitest";
import type { Finding, Plan } from "@/api/types";
import { mended } from "./use-plan";

const finding = (place: string, says: string, ...fixes: string[]): Finding => ({
  code: "no_order",
  severity: "stop",
  place,
  says,
  remedy: "",
  fixes: fixes.map((fix) => ({ says: fix, edits: [], whole: true })),
});

test("what was tried takes the place of the same finding, and of no other", () => {
  const plan = { findings: [finding("steps.0", "One"), finding("steps.1", "Two")] } as Plan;
  const tried = [finding("steps.0", "One", "Move it"), finding("steps.1", "Two, as it was before", "Old")];
  expect(mended(plan, tried).findings).toEqual([tried[0], plan.findings[1]]);
});
