import type { Labour } from "@/api/types";
import { t } from "@/words/estimate";
import { hoursOf, isInMinutes, minutesOf } from "./money";

/** Labour as an estimate: what it comes to, and from where to where it may come. */
export function Spread({ labour }: { labour: Labour }) {
  if (!labour.minutes) return <span className="text-soft">{t("labour.no_figures")}</span>;
  const { minutes, least, most } = labour;
  if (isInMinutes(most))
    return t("labour.minutes", { about: minutesOf(minutes), least: minutesOf(least), most: minutesOf(most) });
  return t("labour.hours", { about: hoursOf(minutes), least: hoursOf(least), most: hoursOf(most) });
}
