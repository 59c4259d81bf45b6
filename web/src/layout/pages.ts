export interface Tab {
  to: string;
  label: string;
}

/** The views of a run, in the order of the work. */
export const runTabs = (runId: number, jobId: number): Tab[] => [
  { to: `/runs/${runId}/walk`, label: "Walk" },
  { to: `/runs/${runId}/bench`, label: "Bench" },
  { to: `/jobs/${jobId}/stock?run=${runId}`, label: "Stock" },
  { to: `/log?run=${runId}`, label: "Log" },
];

export const CREW_TABS: Tab[] = [
  { to: "/", label: "Jobs" },
  { to: "/shoes", label: "Shoes" },
  { to: "/log", label: "Log" },
];

export const CREW_PAGES: Tab[] = [
  { to: "/people", label: "People of the crew" },
  { to: "/limits", label: "Limits of the crew" },
  { to: "/me", label: "My name, password, crews" },
];
