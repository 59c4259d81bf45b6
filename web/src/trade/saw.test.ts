import { expect, test } from "vitest";
import { needsNoSaw } from "./saw";

const at = (inches: number) => ({ inches, reads: "" });

test("a piece that ends where its bar ends needs no saw, within a hundredth", () => {
  const bar = { length: at(40) };
  expect([40, 39.991, 40.009].map((end) => needsNoSaw({ end: at(end) }, bar))).toEqual([true, true, true]);
  expect([39.989, 39].map((end) => needsNoSaw({ end: at(end) }, bar))).toEqual([false, false]);
});
