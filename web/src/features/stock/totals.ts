import type { CutChoice, Tape } from "@/api/types";
import { reads } from "@/draw/fractions";
import { type Thing, things } from "@/trade/counts";
import { t } from "@/words/stock";

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
    parts.push(t(waste > 0 ? "try.more_waste" : "try.less_waste", { waste: reads(Math.abs(waste), tape) }));
  return parts.length ? t("try.compared", { parts: parts.join(", ") }) : t("try.same");
}

const difference = (by: number, thing: Thing) =>
  by ? t(by > 0 ? "try.more" : "try.fewer", { things: things(Math.abs(by), thing) }) : "";
