import type { BenchAct } from "@/api/types";
import { t } from "@/words/shell";

const WORDS: Record<Exclude<BenchAct["kind"], "bent">, string> = {
  arrange: t("howItIsToBe"),
  cut: t("cut"),
  uncut: t("notCutAfterAll"),
  fitted: t("fitted"),
  unfitted: t("notFittedAfterAll"),
  scrapped: t("scrapped"),
  unbent: t("enteredByMistake"),
  left: t("leftAsItIs"),
  checked: t("lookedAt"),
  unchecked: t("notLookedAtAfterAll"),
};

/** An act as a person would say it: “stick 1, bend 2, 45° and 71 1/2 on the tape”. */
export function actInWords(act: BenchAct): string {
  const bend = "bend" in act ? t("bend", { bend: act.bend }) : "";
  const what = act.kind === "bent" ? reading(act) : WORDS[act.kind];
  return t("stick", { piece: act.piece, bend, what });
}

const reading = ({ angle, tape }: Extract<BenchAct, { kind: "bent" }>): string =>
  tape ? t("angleAndTape", { angle, tape }) : `${angle}°`;
