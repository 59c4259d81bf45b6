import { t } from "@/words/ui";

const NAMES: Record<string, string> = {
  arrow: t("arrow"),
  star: t("star"),
  notch: t("notch"),
  front: t("front"),
  centre: t("centre"),
};

/** What a reference on the shoe is called; one of its owner's own as they named it. */
export const referenceName = (reference: string): string => NAMES[reference] ?? reference;
