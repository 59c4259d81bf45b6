import { describe, expect, it } from "vitest";
import type { Plan, PlannedOrder } from "@/api/types";
import { benchSteps } from "./bench-steps";

const use = (hook: "A" | "B") => ({ reference: "arrow", hook });
const plan = {
  pieces: [{ number: 1, bends: [1, 2, 3].map((number) => ({ number, use: use("A") })) }],
} as unknown as Plan;
const order = (...bends: number[][]): PlannedOrder[] =>
  [
    { acts: bends.map((group) => ({ bends: group, uses: group.map(() => use("B")) })) },
  ] as unknown as PlannedOrder[];

describe("bends at the bench", () => {
  it("come in the order of bending, with the marks it wants", () => {
    const steps = benchSteps(plan, order([2], [1, 3]));
    expect(steps.map((step) => step.bend.number)).toEqual([2, 1, 3]);
    expect(steps.every((step) => step.use.hook === "B")).toBe(true);
  });

  it("come along the pipe where there is no order, or one of another run", () => {
    for (const orders of [undefined, order(), order([4], [5], [6])]) {
      const steps = benchSteps(plan, orders);
      expect(steps.map((step) => [step.bend.number, step.use.hook])).toEqual([
        [1, "A"],
        [2, "A"],
        [3, "A"],
      ]);
    }
  });
});
