import { expect, test } from "vitest";
import type { Shoe } from "@/api/types";
import { KINDS, kindWord } from "./kinds";
import { lastPipe, newRun } from "./new-run";
import { MATERIALS, TAPES, TRADE_SIZES } from "./words";

test("a new run has nothing measured, and nothing that somebody would have to take out", () => {
  const run = newRun("Kiln 4 feed", []);
  expect(run.name).toBe("Kiln 4 feed");
  expect(run.steps).toEqual([]);
  expect(run.end).toMatchObject({ at: "" });
  expect(run.limits ?? null).toBeNull();
});

test("it is of the pipe of the run that was saved last", () => {
  const run = (trade_size: string, saved_at: string) => ({ material: "IMC", trade_size, saved_at });
  const pipe = lastPipe([run("1", "2026-05-04T09:00:00Z"), run("1/2", "2026-05-04T08:00:00Z")]);
  expect(newRun("Next", [], undefined, pipe)).toMatchObject({ material: "IMC", trade_size: "1" });
  expect(newRun("First", [], undefined, lastPipe([]))).toMatchObject({ material: "EMT", trade_size: "3/4" });
});

test("it takes a shoe of the crew only where that bends its pipe", () => {
  const shoe = {
    name: "Own 2",
    trade_size: "2",
    material: "EMT",
    figures: { name: "Own 2" },
  } as unknown as Shoe;
  expect(newRun("Run", [shoe]).shoe ?? null).toBeNull();
});

test("what can be chosen is named once each", () => {
  for (const choices of [TRADE_SIZES, MATERIALS, TAPES]) {
    const values = choices.map((choice) => choice.value);
    expect(new Set(values).size).toBe(values.length);
    for (const choice of choices) expect(choice.label).toBeTruthy();
  }
  expect(new Set(KINDS.map(({ kind }) => kindWord(kind))).size).toBe(KINDS.length);
});
