import { get, set } from "idb-keyval";
import { ApiError, api, reply } from "./client";
import { refreshLimits } from "./core/limits";
import { RUNS } from "./kept";
import { shownFor } from "./owner";
import { isAway } from "./reachable";
import type { Job, Run } from "./types";

/** A run as the server gave it last; `keptAt`: when that was, where it comes from this device. */
export type KeptRun = Run & { keptAt?: number };

/** Under which a run is kept: a number of the server, or one below zero that was begun here. */
export const keyOf = (id: number): string => `${shownFor()} ${id}`;

const keptRun = (id: number): Promise<KeptRun | undefined> =>
  get<KeptRun>(keyOf(id), RUNS).catch(() => undefined);

const fromServer = async (id: number): Promise<Run> => {
  const run = await reply(api.GET("/api/runs/{run_id}", { params: { path: { run_id: id } } }));
  await set(keyOf(id), { ...run, keptAt: Date.now() }, RUNS).catch(() => undefined);
  return run;
};

const isOutOfReach = (error: unknown): boolean => error instanceof ApiError && isAway(error.status);

/** A run from the server; where that is out of reach, as it is kept on this device. */
export async function runFromEither(id: number): Promise<KeptRun> {
  try {
    return await fromServer(id);
  } catch (error) {
    const kept = isOutOfReach(error) ? await keptRun(id) : undefined;
    if (kept) return kept;
    throw error;
  }
}

/**
 * Keeps the runs of all jobs at work as they were saved last, and the limits that they are planned by; one after the
 * other, and stops where one cannot be had.
 */
export async function keepRuns(jobs: readonly Job[]): Promise<void> {
  await refreshLimits(undefined);
  for (const { archived_at, crew_id, runs } of jobs) {
    const isOurs = shownFor().startsWith(`${crew_id}.`);
    for (const { id, saved_at } of archived_at ? [] : runs) {
      if ((await keptRun(id))?.saved_at === saved_at) continue;
      await fromServer(id);
      if (!isOurs) await refreshLimits(String(id));
    }
  }
}
