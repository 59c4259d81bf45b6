import { t } from "@/words/scene";

export type Side = "front" | "plan" | "side" | "turned";

/** From where a picture is looked at, as it is chosen. */
export const SIDES: { value: Side; label: string }[] = [
  { value: "front", label: t("view.front") },
  { value: "plan", label: t("view.above") },
  { value: "side", label: t("view.right") },
  { value: "turned", label: t("view.turn") },
];
