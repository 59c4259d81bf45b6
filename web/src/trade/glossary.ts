import { t } from "@/words/trade";
/** Words of the trade, explained on demand. */
export const GLOSSARY = {
  spacing: t("distanceAlongThePipeBetween"),
  shrink: t("howMuchNearerTheFar"),
  room: t("lengthAlongTheLegThat"),
  gain: t("outsideLegsOfA90"),
  deduct: t("stubHeightToTheBack"),
  clearance: t("theLeastDistanceKeptBetween"),
  closure: t("asASurveyorClosesA"),
  "developed length": t("theLengthOfStraightPipe"),
  "stand-off": t("gapBetweenTheSurfaceAnd"),
} as const;

export type Word = keyof typeof GLOSSARY;
