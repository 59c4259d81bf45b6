import { t } from "@/words/ui";

const NAMES: Record<string, string> = {
  arrow: t("reference.arrow"),
  star: t("reference.star"),
  notch: t("reference.notch"),
  front: t("reference.front"),
  centre: t("reference.centre"),
};

/** What a reference on the shoe is called; one of its owner's own as they named it. */
export const referenceName = (reference: string): string => NAMES[reference] ?? reference;
