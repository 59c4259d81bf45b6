import type { ListedSource, Measure, TakenBar, TakenCut } from "@/api/types";
import { t } from "@/words/trade";

// Inches: what lies nearer than this is at one place. A blade takes six times as much.
const AT_ONE_PLACE = 0.01;

/** Whether a piece is what is there: nothing is sawn off behind it. */
export const needsNoSaw = (
  cut: { end: Measure },
  bar: { length: Measure; square?: Measure | null | undefined },
) => Math.abs(cut.end.inches + (bar.square?.inches ?? 0) - bar.length.inches) < AT_ONE_PLACE;

/** On which of a bar's ends the tape is hooked, and what comes off it first; nothing where it is as usual. */
export function beginsAt({ begin, square }: Pick<TakenBar | ListedSource, "begin" | "square">): string {
  const hooked = begin === "B" ? t("scrap.hooked_b") : "";
  if (!square) return hooked;
  return hooked + (square.inches > 0 ? t("scrap.square", { square: square.reads }) : t("scrap.off_the_bend"));
}

/** Such a piece in words. */
export const wholeOrRest = (cut: TakenCut) => (cut.start.inches > 0 ? t("scrap.rest") : t("scrap.whole"));
