import { t } from "@/words/trade";
/** Words of the trade, explained on demand. */
export const GLOSSARY = {
  spacing: t("glossary.spacing"),
  shrink: t("glossary.shrink"),
  room: t("glossary.room"),
  gain: t("glossary.gain"),
  deduct: t("glossary.deduct"),
  clearance: t("glossary.clearance"),
  closure: t("glossary.closure"),
  "developed length": t("glossary.developed_length"),
  "stand-off": t("glossary.stand_off"),
} as const;

export type Word = keyof typeof GLOSSARY;
