import { describe, expect, it } from "vitest";
import type { RunDocument, Shoe } from "@/api/types";
import { fittingShoe, uncalibrated } from "./fitting-shoe";

const shoe = (name: string, trade_size: string, calibrated_at: string | null) =>
  ({ name, called_before: [`Old ${name}`], material: "EMT", trade_size, calibrated_at }) as Shoe;
const SHOES = [
  shoe("Worn", "3/4", "2026-01-05T08:00:00Z"),
  shoe("Borrowed", "3/4", null),
  shoe("Van", "3/4", "2026-03-01T08:00:00Z"),
  shoe("New", "1", null),
];
const run = (trade_size: string, name: string | null) =>
  ({ trade_size, shoe: name === null ? null : { name } }) as RunDocument;

describe("the shoe that a pipe is bent on", () => {
  it("is the crew's own that was calibrated last, or one that fits", () => {
    expect(fittingShoe(SHOES, { trade_size: "3/4" })?.name).toBe("Van");
    expect(fittingShoe(SHOES, { trade_size: "1" })?.name).toBe("New");
    expect(fittingShoe(SHOES, { trade_size: "1/2" })).toBeNull();
    expect(fittingShoe(SHOES, { trade_size: "3/4", material: "IMC" })).toBeNull();
  });

  it("is said to be uncalibrated unless a test bend stands behind it", () => {
    expect(uncalibrated(SHOES, run("3/4", "Van"))).toBe("");
    expect(uncalibrated(SHOES, run("3/4", "Old Van"))).toBe("");
    expect(uncalibrated(SHOES, run("3/4", null))).toContain("typical figures");
    expect(uncalibrated(SHOES, run("1", "New"))).toContain("New is not calibrated");
    expect(uncalibrated(SHOES, run("1", "Van"))).toContain("entered by hand");
  });
});
