import { t } from "@/words/shell";

export interface Stop {
  /** The view that it stands in: what its address is like, and what it is called. */
  at: RegExp;
  view: string;
  /** What is pointed at, as a selector; the first of it. */
  point: string;
  says: string;
  /** What is said where it is not on the page: a run that is blocked, a stick that is begun. */
  absent?: string;
  /** What a person does to it that takes the tour on; none: only “Next” does. */
  done?: "click" | "change" | "submit";
  /** Only for who may write. */
  writes?: true;
}

const LAYOUT = { at: /^\/runs\/\d+\/layout/, view: t("layout") };
const BENCH = { at: /^\/runs\/\d+\/bench/, view: t("bench") };

/** One run from the tape to the saw, in the order of the work. */
const ALL: Stop[] = [
  {
    at: /^\/$/,
    view: t("jobs"),
    point: 'main a[href$="/layout"]',
    says: t("tourOpenARun"),
    done: "click",
  },
  {
    ...LAYOUT,
    point: "[data-tour=steps] > :nth-child(2) input",
    says: t("tourChangeAFigure"),
    done: "change",
    writes: true,
  },
  { ...LAYOUT, point: "[data-tour=verdict]", says: t("tourReadTheVerdict") },
  { ...LAYOUT, point: 'header a[href$="/bench"]', says: t("tourGoToTheBench"), done: "click" },
  {
    ...BENCH,
    point: "[data-tour=cut]",
    says: t("tourCutAndMark"),
    absent: t("tourIsCutAlready"),
    done: "click",
    writes: true,
  },
  {
    ...BENCH,
    point: "[data-tour=reading]",
    says: t("tourEnterAReading"),
    absent: t("tourNoReading"),
    done: "submit",
    writes: true,
  },
  { ...BENCH, point: 'header a[href*="/stock"]', says: t("tourGoToStock"), done: "click" },
  {
    at: /^\/jobs\/\d+\/stock/,
    view: t("stock"),
    point: "[data-tour=take]",
    says: t("tourTakeThePlan"),
    absent: t("tourNothingToTake"),
    writes: true,
  },
];

/** The tour's stops for a person: who may only look is not told to type, cut and enter. */
export const stopsFor = (mayWrite: boolean): Stop[] => (mayWrite ? ALL : ALL.filter((stop) => !stop.writes));
