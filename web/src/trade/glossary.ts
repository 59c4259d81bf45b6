import { t } from "@/words/trade";
/** Words of the trade, explained on demand. */
export const GLOSSARY = {
  "90": t("aQuarterTurnItsMeasure"),
  offset: t("twoBendsOfOneAngle"),
  "offset of two angles": t("itsSecondBendTurnsBack"),
  "rolled offset": t("anOffsetThatLeavesIts"),
  "box offset": t("aSmallOffsetRightAt"),
  "three-bend saddle": t("overSomethingRoundOrNarrow"),
  "four-bend saddle": t("overSomethingWideUpBy"),
  kick: t("oneSmallBendInA"),
  sweep: t("oneLargeRadiusMadeOf"),
  "pull point": t("aBoxOrFittingWhere"),
  coupling: t("joinsTwoLengthsOfPipe"),
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
