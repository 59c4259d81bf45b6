import type { Measure, TakenCut } from "@/api/types";
import { t } from "@/words/trade";

// Inches: what lies nearer than this is at one place. A blade takes six times as much.
const AT_ONE_PLACE = 0.01;

/** Whether a piece is what is there: nothing is sawn off behind it. */
export const needsNoSaw = (cut: { end: Measure }, bar: { length: Measure }) =>
  Math.abs(cut.end.inches - bar.length.inches) < AT_ONE_PLACE;

/** Such a piece in words. */
export const wholeOrRest = (cut: TakenCut) => (cut.start.inches > 0 ? t("scrap.rest") : t("scrap.whole"));
