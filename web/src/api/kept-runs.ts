import { api, reply } from "./client";
import { refreshLimits } from "./core/limits";
import { type Kept, KeptOnes } from "./kept-ones";
import { shownFor } from "./owner";
import type { Bench, Floor, Job, Run } from "./types";

/** A run as the server gave it last. */
export type KeptRun = Kept<Run>;

const of = (id: number) => ({ params: { path: { run_id: id } } });

/** The runs by their numbers; those below zero were begun here. */
export const keptRuns = new KeptOnes<Run>("", (id) => reply(api.GET("/api/runs/{run_id}", of(id))));

export const keptBenches = new KeptOnes<Bench>(
  "bench ",
  (id) => reply(api.GET("/api/runs/{run_id}/bench", of(id))) as Promise<Bench>,
);

export const keptFloors = new KeptOnes<Floor>(
  "floor ",
  (id) => reply(api.GET("/api/runs/{run_id}/floor", of(id))) as unknown as Promise<Floor>,
);

/**
 * Keeps the runs of all jobs at work as they were saved last, the limits that they are planned by, the benches at
 * which something is begun, and racks on the floor; one after the other, and stops where one cannot be had.
 */
export async function keepRuns(jobs: readonly Job[]): Promise<void> {
  await refreshLimits(undefined);
  for (const { archived_at, crew_id, runs } of jobs) {
    const isOurs = shownFor().startsWith(`${crew_id}.`);
    for (const { id, saved_at, begun, status } of archived_at ? [] : runs) {
      if ((await keptRuns.kept(id))?.saved_at !== saved_at) {
        await keptRuns.fresh(id);
        if (!isOurs) await refreshLimits(String(id));
      }
      const isWorkedOn = begun.length > 0 || status === "cut" || status === "bent";
      if (isWorkedOn && isOld(await keptBenches.kept(id))) await keptBenches.fresh(id);
    }
    for (const lead of leadsOf(archived_at ? [] : runs))
      if (isOld(await keptFloors.kept(lead))) await keptFloors.fresh(lead);
  }
}

const OFTEN = 10 * 60_000;

const isOld = (one: { keptAt?: number } | undefined): boolean => Date.now() - (one?.keptAt ?? 0) > OFTEN;

/** The runs that others follow as pipes of their racks. */
const leadsOf = (runs: Job["runs"]) =>
  new Set(runs.flatMap(({ rack_lead: lead }) => (typeof lead === "number" ? [lead] : [])));
