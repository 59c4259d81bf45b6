import { describe, expect, it } from "vitest";
import type { RunDocument, Step } from "@/api/types";
import { newRun } from "@/trade/new-run";
import { ANGLES, HEADINGS, STEP_WORDS } from "@/trade/words";
import { newStep } from "./new-step";

const AXIS: Record<string, string> = { up: "y", down: "y", left: "x", right: "x", out: "z", in: "z" };

const walked = (heading: RunDocument["start"]["heading"], steps: Step[] = []): RunDocument => ({
  ...newRun("Run", []),
  start: { heading },
  steps,
});

describe("a new step", () => {
  it("is proposed across the pipe, whatever the heading", () => {
    for (const { value } of HEADINGS) {
      const bend = newStep("bend", walked(value), 0);
      const offset = newStep("offset", walked(value), 0);
      expect(bend.kind === "bend" && AXIS[bend.turn]).not.toBe(AXIS[value]);
      expect(offset.kind === "offset" && AXIS[offset.toward]).not.toBe(AXIS[value]);
    }
  });

  it("goes by the turns before it, of whatever kind", () => {
    const sweep: Step = {
      kind: "sweep",
      turn: "out",
      at: "60",
      radius: "20",
      shots: 9,
      to: "back",
      spacing: "exact",
    };
    const after = newStep("bend", walked("up", [sweep]), 1);
    expect(after.kind === "bend" && AXIS[after.turn]).not.toBe("z");
    const before = newStep("bend", walked("up", [sweep]), 0);
    expect(before.kind === "bend" && AXIS[before.turn]).not.toBe("y");
  });

  it("asks for its numbers instead of making them up", () => {
    const step = newStep("offset", walked("up"), 0);
    expect(step).toMatchObject({ rise: "", at: "" });
    expect(step.kind === "offset" && ANGLES.includes(String(step.angle))).toBe(true);
  });
});

describe("a new run", () => {
  it("has nothing measured and keeps its name", () => {
    expect(newRun("Stub", [])).toMatchObject({ name: "Stub", steps: [], end: { at: "" } });
  });

  it("has a word for every kind of step", () => {
    expect(Object.values(STEP_WORDS).every((word) => word.length > 1)).toBe(true);
  });
});
