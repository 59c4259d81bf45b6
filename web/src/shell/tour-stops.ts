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

const LAYOUT = { at: /^\/runs\/\d+\/layout/, view: t("view.layout") };
const BENCH = { at: /^\/runs\/\d+\/bench/, view: t("view.bench") };

/** One run from the tape to the saw, in the order of the work. */
const ALL: Stop[] = [
  {
    at: /^\/$/,
    view: t("help.jobs"),
    point: 'main a[href$="/layout"]',
    says: t("tour.open"),
    done: "click",
  },
  {
    ...LAYOUT,
    point: "[data-tour=steps] > :nth-child(2) input",
    says: t("tour.figure"),
    done: "change",
    writes: true,
  },
  { ...LAYOUT, point: "[data-tour=verdict]", says: t("tour.verdict") },
  { ...LAYOUT, point: 'header a[href$="/bench"]', says: t("tour.bench"), done: "click" },
  {
    ...BENCH,
    point: "[data-tour=cut]",
    says: t("tour.cut"),
    absent: t("tour.cut_already"),
    done: "click",
    writes: true,
  },
  {
    ...BENCH,
    point: "[data-tour=reading]",
    says: t("tour.reading"),
    absent: t("tour.no_reading"),
    done: "submit",
    writes: true,
  },
  { ...BENCH, point: 'header a[href*="/stock"]', says: t("tour.stock"), done: "click" },
  {
    at: /^\/jobs\/\d+\/stock/,
    view: t("view.stock"),
    point: "[data-tour=take]",
    says: t("tour.plan"),
    absent: t("tour.nothing_to_take"),
    writes: true,
  },
];

/** The tour's stops for a person: who may only look is not told to type, cut and enter. */
export const stopsFor = (mayWrite: boolean): Stop[] => (mayWrite ? ALL : ALL.filter((stop) => !stop.writes));
