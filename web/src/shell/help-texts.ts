import { t } from "@/words/shell";
export interface HelpText {
  title: string;
  /** What is done here, and in which order. */
  says: string[];
  /** Where the work goes on. */
  next?: string;
}

interface HelpHere extends HelpText {
  view: string;
  at: RegExp;
}

/** What is done in each view, for a first day; the views of a run in the order of the work. */
const HELP: HelpHere[] = [
  {
    view: "jobs",
    at: /^\/$/,
    title: t("help.jobs"),
    says: [t("help.jobs.what"), t("help.jobs.new")],
    next: t("help.jobs.open"),
  },
  {
    view: "layout",
    at: /^\/runs\/\d+\/layout/,
    title: t("help.layout"),
    says: [t("help.layout.go"), t("help.layout.verdict"), t("help.layout.ways")],
    next: t("help.layout.to_bench"),
  },
  {
    view: "bench",
    at: /^\/runs\/\d+\/bench/,
    title: t("help.bench"),
    says: [t("help.bench.cut"), t("help.bench.read"), t("help.bench.offline")],
    next: t("help.bench.stock"),
  },
  {
    view: "stock",
    at: /^\/jobs\/\d+\/stock/,
    title: t("help.stock"),
    says: [t("help.stock.scrap"), t("help.stock.take")],
    next: t("help.stock.log"),
  },
  {
    view: "log",
    at: /^\/log/,
    title: t("help.log"),
    says: [t("help.log.what")],
  },
  {
    view: "shoes",
    at: /^\/shoes/,
    title: t("help.shoes"),
    says: [t("help.shoes.calibrate"), t("help.shoes.typical")],
  },
  {
    view: "floor",
    at: /^\/runs\/\d+\/floor/,
    title: t("help.floor"),
    says: [t("help.floor.lay"), t("help.floor.stages")],
  },
  {
    view: "people",
    at: /^\/people/,
    title: t("help.people"),
    says: [t("help.people.what")],
  },
  {
    view: "limits",
    at: /^\/limits/,
    title: t("help.limits"),
    says: [t("help.limits.what")],
  },
];

/** The help of an address, if there is any. */
export const helpAt = (path: string): HelpHere | undefined => HELP.find((one) => one.at.test(path));
