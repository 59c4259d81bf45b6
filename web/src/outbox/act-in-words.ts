import type { BenchAct } from "@/api/types";
import { t } from "@/words/shell";

const WORDS: Record<Exclude<BenchAct["kind"], "bent">, string> = {
  arrange: t("act.arrange"),
  cut: t("act.cut"),
  uncut: t("act.uncut"),
  fitted: t("act.fitted"),
  unfitted: t("act.unfitted"),
  scrapped: t("act.scrapped"),
  unbent: t("act.unbent"),
  left: t("act.left"),
  checked: t("act.checked"),
  unchecked: t("act.unchecked"),
};

/** An act as a person would say it: “stick 1, bend 2, 45° and 71 1/2 on the tape”. */
export function actInWords(act: BenchAct): string {
  const bend = "bend" in act ? t("act.bend", { bend: act.bend }) : "";
  const what = act.kind === "bent" ? reading(act) : WORDS[act.kind];
  return t("act.told", { piece: act.piece, bend, what });
}

const reading = ({ angle, tape }: Extract<BenchAct, { kind: "bent" }>): string =>
  tape ? t("act.angle_and_tape", { angle, tape }) : `${angle}°`;
