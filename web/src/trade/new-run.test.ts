import { expect, test } from "vitest";
import type { Shoe } from "@/api/types";
import { newRun } from "./new-run";
import { MATERIALS, STEP_WORDS, TAPES, TRADE_SIZES } from "./words";

test("a new run has nothing measured, and nothing that somebody would have to take out", () => {
  const run = newRun("Kiln 4 feed", []);
  expect(run.name).toBe("Kiln 4 feed");
  expect(run.steps).toEqual([]);
  expect(run.end).toMatchObject({ at: "" });
  expect(run.limits ?? null).toBeNull();
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
  expect(new Set(Object.values(STEP_WORDS)).size).toBe(Object.keys(STEP_WORDS).length);
});
