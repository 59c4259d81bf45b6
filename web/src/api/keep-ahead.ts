import type { QueryClient } from "@tanstack/react-query";
import { openRun } from "./client";
import { cuttingOf } from "./cutting";
import { keepRuns } from "./kept-runs";
import { logOf, shoesOf } from "./queries";
import { RACK } from "./stock-queries";
import type { Job } from "./types";

const OFTEN = { staleTime: 10 * 60_000 };

/** Keeps what the crew works with, before anybody asks for it: for where there is no network. */
export async function keepAhead(queries: QueryClient, jobs: readonly Job[]): Promise<void> {
  await keepRuns(jobs);
  // On a run's page it would be those for the run.
  if (!openRun()) await queries.prefetchQuery({ ...shoesOf(undefined), ...OFTEN });
  await queries.prefetchQuery({ ...RACK, ...OFTEN });
  await queries.prefetchQuery({ ...logOf({}), ...OFTEN });
  for (const job of jobs)
    if (!job.archived_at) await queries.prefetchQuery({ ...cuttingOf(job.id), ...OFTEN });
}
