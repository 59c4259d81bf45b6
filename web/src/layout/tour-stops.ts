import { t } from "@/words/shell";

export interface Stop {
  /** The view that it stands in: what its address is like, and what it is called. */
  at: RegExp;
  view: string;
  /** What is pointed at, as a selector; the first of it. */
  point: string;
  says: string;
  /** What a person does to it that takes the tour on; none: only “Next” does. */
  done?: "click" | "change" | "submit";
}

const WALK = { at: /^\/runs\/\d+\/walk/, view: t("walk") };
const BENCH = { at: /^\/runs\/\d+\/bench/, view: t("bench") };

/** One run from the tape to the saw, in the order of the work. */
export const STOPS: Stop[] = [
  {
    at: /^\/$/,
    view: t("jobs"),
    point: 'main a[href$="/walk"]',
    says: t("tourOpenARun"),
    done: "click",
  },
  { ...WALK, point: "[data-tour=steps] > :nth-child(2) input", says: t("tourChangeAFigure"), done: "change" },
  { ...WALK, point: "[data-tour=verdict]", says: t("tourReadTheVerdict") },
  { ...WALK, point: 'header a[href$="/bench"]', says: t("tourGoToTheBench"), done: "click" },
  { ...BENCH, point: "[data-tour=cut]", says: t("tourCutAndMark"), done: "click" },
  { ...BENCH, point: "[data-tour=reading]", says: t("tourEnterAReading"), done: "submit" },
  { ...BENCH, point: 'header a[href*="/stock"]', says: t("tourGoToStock"), done: "click" },
  { at: /^\/jobs\/\d+\/stock/, view: t("stock"), point: "[data-tour=take]", says: t("tourTakeThePlan") },
];
