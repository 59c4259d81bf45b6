import { isBegunHere } from "@/api/own-numbers";
import { t } from "@/words/shell";
export interface Tab {
  to: string;
  label: string;
  /** Where the work goes on from here once all is typed. */
  onward?: true;
}

/** The views of a run, in the order of the work; of one that is only on this device those that need nobody else. */
export const runTabs = (runId: number, jobId: number): Tab[] => {
  const own: Tab[] = [
    { to: `/runs/${runId}/layout`, label: t("view.layout") },
    { to: `/runs/${runId}/bench`, label: t("view.bench"), onward: true },
  ];
  return isBegunHere(runId) ? own : [...own, ...withTheServer(runId, jobId)];
};

const withTheServer = (runId: number, jobId: number): Tab[] => [
  { to: `/jobs/${jobId}/stock?run=${runId}`, label: t("view.stock") },
  { to: `/log?run=${runId}`, label: t("view.log") },
];

/** The views of a job as a whole. */
export const jobTabs = (jobId: number): Tab[] => [
  { to: "/", label: t("help.jobs") },
  { to: `/jobs/${jobId}/space`, label: t("view.whole") },
  { to: `/jobs/${jobId}/work`, label: t("view.work") },
  { to: `/jobs/${jobId}/stock`, label: t("view.stock") },
];

export const CREW_TABS: Tab[] = [
  { to: "/", label: t("help.jobs") },
  { to: "/shoes", label: t("help.shoes") },
  { to: "/log", label: t("view.log") },
];

export const CREW_PAGES: Tab[] = [
  { to: "/people", label: t("help.people") },
  { to: "/company", label: t("menu.company") },
  { to: "/limits", label: t("help.limits") },
  { to: "/estimate", label: t("menu.estimate") },
  { to: "/devices", label: t("menu.devices") },
  { to: "/me", label: t("menu.me") },
];
