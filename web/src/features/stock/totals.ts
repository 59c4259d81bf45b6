import type { CutChoice, Tape } from "@/api/types";
import { reads } from "@/draw/fractions";
import { things } from "@/trade/counts";

export interface Totals {
  sticks: number;
  couplings: number;
  waste: number;
  wasteReads: string;
  cuts: number;
}

/** What the choices take in all. */
export function total(choices: CutChoice[], tape: Tape): Totals {
  const sum = (of: (choice: CutChoice) => number) => choices.reduce((so, choice) => so + of(choice), 0);
  const waste = sum((choice) => choice.waste.inches);
  return {
    sticks: sum((choice) => choice.sticks),
    couplings: sum((choice) => choice.couplings),
    waste,
    wasteReads: reads(waste, tape),
    cuts: sum((choice) => choice.sources.reduce((so, source) => so + source.cuts.length, 0)),
  };
}

/** What a trial costs against how it was before. */
export function compared(before: Totals, now: Totals, tape: Tape): string {
  const parts = [
    difference(now.sticks - before.sticks, "stick"),
    difference(now.couplings - before.couplings, "coupling"),
  ].filter(Boolean);
  const waste = now.waste - before.waste;
  if (Math.abs(waste) > 0.01)
    parts.push(`${reads(Math.abs(waste), tape)} ${waste > 0 ? "more" : "less"} waste`);
  return parts.length ? `Against before: ${parts.join(", ")}.` : "As before.";
}

const difference = (by: number, thing: string) =>
  by ? `${things(Math.abs(by), thing)} ${by > 0 ? "more" : "fewer"}` : "";
