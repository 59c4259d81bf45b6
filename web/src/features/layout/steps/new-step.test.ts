import { describe, expect, it } from "vitest";
import type { RunDocument, Step } from "@/api/types";
import { kindOf } from "@/trade/kinds";
import { newRun } from "@/trade/new-run";
import { ANGLES, HEADINGS } from "@/trade/words";
import { givenAs, newStep, wayOfGiving } from "./new-step";

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
});

describe("a figure that can be given in several ways", () => {
  const wayOf = (step: Step, name: string, way: string) => {
    const found = kindOf(step.kind).ways[name]?.find((one) => one.way === way);
    if (!found) throw new Error(way);
    return found;
  };

  it("keeps what both ways have, and takes out what only the old one has", () => {
    const measured = { ...newStep("offset", walked("up"), 0), rise: "3" } as Step;
    const over = givenAs(measured, wayOf(measured, "rise_by", "round"), "1/16");
    expect(over).toMatchObject({ rise: null, over: { shape: "round", name: "", height: "", clear: "1/2" } });
    const higher = { ...over, over: { shape: "round", name: "Duct", height: "9" } } as Step;
    const flat = givenAs(higher, wayOf(higher, "rise_by", "box"), "1 mm");
    expect(flat).toMatchObject({ over: { shape: "box", name: "Duct", height: "9", clear: "13" } });
    expect(givenAs(flat, wayOf(flat, "rise_by", "rise"), "1/16")).toMatchObject({ rise: "", over: null });
  });

  it("is told by what is there", () => {
    const swept = newStep("sweep", walked("up"), 0);
    const by = (step: Step, name: string) => wayOfGiving(step, kindOf("sweep").ways[name] ?? [])?.way;
    expect([by(swept, "radius_by"), by(swept, "shots_by")]).toEqual(["given", "shots"]);
    const around = givenAs(swept, wayOf(swept, "radius_by", "around"), "1/16");
    expect(around).toMatchObject({ radius: "24", around: { trade_size: "2", radius: "", gap: "1 1/2" } });
    expect(by(around, "radius_by")).toBe("around");
  });
});
