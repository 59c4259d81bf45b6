import type { TakenBar, TakenCut } from "@/api/types";
import { t } from "@/words/trade";

/** Whether a piece is what is there: nothing is sawn off behind it. */
export const needsNoSaw = (cut: TakenCut, bar: TakenBar) =>
  Math.abs(cut.end.inches - bar.length.inches) < 1e-6;

/** Such a piece in words. */
export const wholeOrRest = (cut: TakenCut) => (cut.start.inches > 0 ? t("scrap.rest") : t("scrap.whole"));
