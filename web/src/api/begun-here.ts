import { entries, get, set, update } from "idb-keyval";
import { t } from "@/words/shell";
import { ApiError, api, reply } from "./client";
import { RUNS } from "./kept";
import { type KeptRun, keptRuns } from "./kept-runs";
import { jobNumber } from "./later";
import { newKey } from "./new-key";
import { Observed } from "./observed";
import { onceAtATime } from "./once-at-a-time";
import { ownNumber } from "./own-numbers";
import { shownFor } from "./owner";
import { isRefusal } from "./reachable";
import type { Job, Run, RunDocument } from "./types";

/** A run that was begun on this device and is not with the server yet. Its number is below zero. */
export interface BegunRun extends KeptRun {
  /**
   * As it goes to the server, one version after the other, each with its own key: sent again it does nothing twice.
   * Something is done by each but the last, or may be on its way.
   */
  versions: readonly Version[];
  /** Why the server did not take it; it stays here, and is tried again. */
  refused?: string;
}

interface Version {
  key: string;
  document: RunDocument;
}

/** In its place once it is with the server: the number that it has there. */
interface Moved {
  movedTo: number;
}

/** The runs begun here that are not sent, as the lists show them. */
class BegunRuns extends Observed<readonly BegunRun[]> {
  constructor() {
    super([]);
  }

  /** Looks what there is of whoever is shown. */
  async look(): Promise<void> {
    const all = await entries<string, BegunRun | Moved>(RUNS).catch(() => []);
    const mine = all.filter(([key]) => key.startsWith(`${shownFor()} -`)).map(([, run]) => run);
    const here = mine.filter((run): run is BegunRun => !("movedTo" in run));
    // The version of the program before this one sent them whole, under one key.
    for (const run of here.filter((one) => !one.versions))
      await set(keptRuns.keyOf(run.id), inVersions(run), RUNS);
    this.change(here.map(inVersions));
  }
}

const inVersions = (run: BegunRun & { key?: string; sent?: RunDocument }): BegunRun => ({
  ...run,
  versions: run.versions ?? (run.key ? [{ key: run.key, document: run.sent ?? run.document }] : []),
});

export const begunRuns = new BegunRuns();

/** Begins a run of a job on this device alone. Rejects where the browser keeps nothing. */
export async function beginHere(
  job: Pick<Job, "id" | "name">,
  document: RunDocument,
  by: string,
): Promise<BegunRun> {
  const now = new Date();
  const run: BegunRun = {
    id: ownNumber(now),
    job_id: job.id,
    job_name: job.name,
    version: 0,
    saved_at: now.toISOString(),
    saved_by: by,
    document,
    rack: null,
    note: "",
    assigned: null,
    photos: [],
    versions: [],
  };
  await set(keptRuns.keyOf(run.id), run, RUNS).catch(() => {
    throw new ApiError(0, t("outbox.no_room"));
  });
  await begunRuns.look();
  return run;
}

/** Gives a run that was refused to another job, with keys of its own, and sends it there. */
export async function putInJob(id: number, job: Pick<Job, "id" | "name">): Promise<void> {
  await change(id, ({ refused: _, ...run }) => ({
    ...run,
    job_id: job.id,
    job_name: job.name,
    versions: run.versions.map((one) => ({ ...one, key: newKey() })),
  }));
  await begunRuns.look();
  await sendBegun(id).catch(() => undefined);
}

async function found(id: number): Promise<BegunRun | Moved> {
  const run = await get<BegunRun | Moved>(keptRuns.keyOf(id), RUNS);
  if (!run) throw new ApiError(404, t("run.not_here"));
  return run;
}

/** A run begun here; as the server has it, once it is there. */
export async function begunHere(id: number): Promise<KeptRun> {
  const run = await found(id);
  return "movedTo" in run ? keptRuns.either(run.movedTo) : run;
}

/** Keeps what was typed of a run begun here; where another window has sent it meanwhile it is saved as any other. */
export async function saveHere(
  id: number,
  version: number,
  document: RunDocument,
): Promise<{ version: number }> {
  const run = await found(id);
  if ("movedTo" in run) return save(run.movedTo, version, document);
  await change(id, (now) => ({ ...now, document, saved_at: new Date().toISOString() }));
  return { version: run.version };
}

/**
 * Fixes a run begun here as it is, so that something may be done by it whatever is typed later. Gives the number that
 * this version will have at the server; undefined where the run is there already.
 */
export async function fixHere(id: number): Promise<number | undefined> {
  await change(id, (now) =>
    same(now.versions.at(-1)?.document, now.document)
      ? now
      : { ...now, versions: [...now.versions, { key: newKey(), document: now.document }] },
  );
  const run = await found(id);
  return "movedTo" in run ? undefined : run.versions.length;
}

/** Sends a run begun here, version by version, until the server has it as it is here. Gives its number there. */
export const sendBegun = (id: number): Promise<number> => onceAtATime(`run ${id}`, () => sent(id));

async function sent(id: number): Promise<number> {
  try {
    for (;;) {
      await fixHere(id);
      const run = await found(id);
      if ("movedTo" in run) return run.movedTo;
      const made = await sendVersions(run);
      await moved(id, made, run.versions.length);
    }
  } catch (error) {
    if (error instanceof ApiError && isRefusal(error.status))
      await change(id, (now) => ({ ...now, refused: error.message }));
    throw error;
  } finally {
    await begunRuns.look();
  }
}

async function sendVersions({ job_id, versions: [first, ...later] }: BegunRun): Promise<number> {
  if (!first) throw new Error("it was fixed before");
  let at: Pick<Run, "id" | "version"> = await add(await jobNumber(job_id), first);
  for (const one of later) at = { ...at, ...(await save(at.id, at.version, one.document, one.key)) };
  return at.id;
}

const same = (one: RunDocument | undefined, other: RunDocument) =>
  JSON.stringify(one) === JSON.stringify(other);

/** Puts the server's number in the place of a run of which it has all versions, unless more was typed meanwhile. */
const moved = (id: number, movedTo: number, sent: number): Promise<void> =>
  update<BegunRun | Moved>(
    keptRuns.keyOf(id),
    (run) => {
      const isWhole =
        !run ||
        "movedTo" in run ||
        (run.versions.length === sent && same(run.versions.at(-1)?.document, run.document));
      return isWhole ? { movedTo } : run;
    },
    RUNS,
  );

/** Changes what is kept of a run begun here, as it is by then; not once it is the server's. */
const change = (id: number, to: (now: BegunRun) => BegunRun): Promise<void> =>
  update<BegunRun | Moved | undefined>(
    keptRuns.keyOf(id),
    (run) => (run && !("movedTo" in run) ? to(run) : run),
    RUNS,
  );

const add = (job: number, { key, document }: Version): Promise<Run> =>
  reply(
    api.POST("/api/jobs/{job_id}/runs", {
      params: { path: { job_id: job } },
      body: { document },
      headers: { "Idempotency-Key": key },
    }),
  );

const save = (
  id: number,
  version: number,
  document: RunDocument,
  key?: string,
): Promise<{ version: number }> =>
  reply(
    api.PUT("/api/runs/{run_id}", {
      params: { path: { run_id: id } },
      body: { version, document },
      headers: key ? { "Idempotency-Key": key } : {},
    }),
  );
