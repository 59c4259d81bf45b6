import type { Job } from "@/api/types";

export type RunLine = Job["runs"][number];

/** Each run, and after it the pipes of its rack. */
export function inRackOrder(runs: RunLine[]): RunLine[] {
  const beside = (lead: RunLine) =>
    runs
      .filter((run) => run.rack_lead === lead.id)
      .sort((a, b) => (a.rack_number ?? 0) - (b.rack_number ?? 0));
  return runs.filter((run) => !run.rack_lead).flatMap((run) => [run, ...beside(run)]);
}
