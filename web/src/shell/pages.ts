import { t } from "@/words/shell";
export interface Tab {
  to: string;
  label: string;
  /** Where the work goes on from here once all is typed. */
  onward?: true;
}

/** The views of a run, in the order of the work. */
export const runTabs = (runId: number, jobId: number): Tab[] => [
  { to: `/runs/${runId}/layout`, label: t("layout") },
  { to: `/runs/${runId}/bench`, label: t("bench"), onward: true },
  { to: `/jobs/${jobId}/stock?run=${runId}`, label: t("stock") },
  { to: `/log?run=${runId}`, label: t("log") },
];

export const CREW_TABS: Tab[] = [
  { to: "/", label: t("jobs") },
  { to: "/shoes", label: t("shoes") },
  { to: "/log", label: t("log") },
];

export const CREW_PAGES: Tab[] = [
  { to: "/people", label: t("peopleOfTheCrew") },
  { to: "/company", label: t("company") },
  { to: "/limits", label: t("limitsOfTheCrew") },
  { to: "/me", label: t("myNamePasswordCrews") },
];
