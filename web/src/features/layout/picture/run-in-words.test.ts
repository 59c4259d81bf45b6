import { expect, test } from "vitest";
import { made } from "@/test/made";
import { runInWords } from "./run-in-words";

test("a run is told from box to box, with its bends and pieces", () => {
  const told = runInWords(made.plan);
  expect(told).toContain("from Panel KP to Glaze store box, 9 bends on the way");
  expect(told).toContain("bend 9 of 90° from 135 7/16");
  expect(told).toContain("184 1/16 of pipe in 2 pieces");
});
