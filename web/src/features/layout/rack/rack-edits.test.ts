import { expect, test } from "vitest";
import type { RackPlan, RunDocument } from "@/api/types";
import { newRun } from "@/trade/new-run";
import { sidesOf } from "@/trade/words";
import { addPipe, movePipe, newRack, removePipe, setPipe } from "./rack-edits";
import { rackFindings } from "./rack-findings";

const run = (): RunDocument => ({ ...newRun("Run", []), start: { name: "", heading: "right" } });

test("a new rack lies across the run, so many pipes in all", () => {
  const rack = newRack(run(), 7);
  expect(sidesOf("right")).toContain(rack.side);
  expect(sidesOf("right")).not.toContain("left");
  expect([rack.pipes.length, rack.spacing]).toEqual([7, "2"]);
  expect(newRack(run(), 500).pipes.length).toBe(23);
});

test("pipes are added like the last one, moved, changed and taken out, and nothing else changes", () => {
  let rack = newRack(run(), 2);
  rack = setPipe(rack, 1, { name: "Second", trade_size: "1/2" });
  rack = addPipe(rack);
  expect(rack.pipes).toEqual([{}, { name: "Second", trade_size: "1/2" }, { trade_size: "1/2" }]);
  rack = movePipe(rack, 1, 0);
  expect(rack.pipes[0]).toEqual({ name: "Second", trade_size: "1/2" });
  expect(movePipe(rack, 0, -1)).toBe(rack);
  expect(removePipe(rack, 0).pipes).toEqual([{}, { trade_size: "1/2" }]);
});

test("what holds for several pipes is told once", () => {
  const finding = {
    code: "not_in_rack",
    severity: "stop",
    place: "steps.1.rack",
    says: "Pipe 2: no.",
    remedy: "",
  };
  const pipes = [
    { findings: [finding] },
    { findings: [finding] },
    { findings: [finding] },
    { findings: [finding] },
  ];
  const told = rackFindings({ pipes, findings: [] } as unknown as RackPlan);
  expect(told.map((one) => one.says)).toEqual(["Pipe 2: no. The same with 2 more."]);
  expect(rackFindings(undefined)).toEqual([]);
});
