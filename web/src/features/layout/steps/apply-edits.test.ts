import { describe, expect, it } from "vitest";
import type { RunDocument } from "@/api/types";
import { applyEdits } from "./apply-edits";

const run: RunDocument = {
  trade_size: "3/4",
  start: { heading: "up" },
  steps: [
    { kind: "coupling", at: "10" },
    { kind: "offset", toward: "right", rise: "2", angle: "60", at: "41" },
  ],
  end: { at: "30" },
};

describe("a fix's edits", () => {
  it("set a field, wherever it is, and leave what was given as it was", () => {
    const after = applyEdits(run, [
      { op: "set", place: "steps.1.angle", value: "30" },
      { op: "set", place: "end.at", value: "31" },
      { op: "set", place: "shoe", value: null },
    ]);
    expect(after.steps[1]).toMatchObject({ angle: "30", rise: "2" });
    expect([after.end.at, after.shoe]).toEqual(["31", null]);
    expect(run.steps[1]).toMatchObject({ angle: "60" });
  });

  it("put steps in before a place and take them out", () => {
    const pullPoint = { kind: "pull_point", at: "5" };
    const kinds = (document: RunDocument) => document.steps.map((step) => step.kind);
    expect(kinds(applyEdits(run, [{ op: "insert", place: "steps.1", value: pullPoint }]))).toEqual([
      "coupling",
      "pull_point",
      "offset",
    ]);
    expect(kinds(applyEdits(run, [{ op: "insert", place: "steps.2", value: pullPoint }]))[2]).toBe(
      "pull_point",
    );
    expect(kinds(applyEdits(run, [{ op: "remove", place: "steps.0" }]))).toEqual(["offset"]);
  });
});
