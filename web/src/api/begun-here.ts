import { entries, get, set, update } from "idb-keyval";
import { t } from "@/words/shell";
import { ApiError, api, reply } from "./client";
import { RUNS } from "./kept";
import { type KeptRun, keyOf, runFromEither } from "./kept-runs";
import { newKey } from "./new-key";
import { Observed } from "./observed";
import { shownFor } from "./owner";
import type { Job, Run, RunDocument } from "./types";

/** A run that was begun on this device and is not with the server yet. Its number is below zero. */
export interface BegunRun extends KeptRun {
  /** With which it is sent, once for all. */
  key: string;
  /** As it was sent first: the same again does nothing twice; what was typed since follows as a save. */
  sent?: RunDocument;
  /** Why the server did not take it; it stays here, and is tried again. */
  refused?: string;
}

/** In its place once it is with the server: the number that it has there. */
interface Moved {
  movedTo: number;
}

export const isBegunHere = (id: number): boolean => id < 0;

const IN_A_MILLISECOND = 4096;

/** A number below zero that no other window of this device gives: the time, and twelve random bits. */
const ownNumber = (now: Date): number =>
  -(now.getTime() * IN_A_MILLISECOND + Math.floor(Math.random() * IN_A_MILLISECOND));

/** The runs begun here that are not sent, as the lists show them. */
class BegunRuns extends Observed<readonly BegunRun[]> {
  constructor() {
    super([]);
  }

  /** Looks what there is of whoever is shown. */
  async look(): Promise<void> {
    const all = await entries<string, BegunRun | Moved>(RUNS).catch(() => []);
    const mine = all.filter(([key]) => key.startsWith(`${shownFor()} -`)).map(([, run]) => run);
    this.change(mine.filter((run): run is BegunRun => !("movedTo" in run)));
  }
}

export const begunRuns = new BegunRuns();

/** Begins a run of a job on this device alone. Rejects where the browser keeps nothing. */
export async function beginHere(job: Job, document: RunDocument, by: string): Promise<BegunRun> {
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
    key: newKey(),
  };
  await set(keyOf(run.id), run, RUNS);
  await begunRuns.look();
  return run;
}

/** Gives a run that was refused to another job, with a key of its own, and sends it there. */
export async function putInJob(id: number, job: Pick<Job, "id" | "name">): Promise<void> {
  await change(id, ({ refused: _, sent: __, ...run }) => ({
    ...run,
    job_id: job.id,
    job_name: job.name,
    key: newKey(),
  }));
  await begunRuns.look();
  await sendBegun(id).catch(() => undefined);
}

async function found(id: number): Promise<BegunRun | Moved> {
  const run = await get<BegunRun | Moved>(keyOf(id), RUNS);
  if (!run) throw new ApiError(404, t("run.not_here"));
  return run;
}

/** A run begun here; as the server has it, once it is there. */
export async function begunHere(id: number): Promise<KeptRun> {
  const run = await found(id);
  return "movedTo" in run ? runFromEither(run.movedTo) : run;
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

/** Sends a run begun here, and what was typed of it since it was sent first. Gives its number at the server. */
export async function sendBegun(id: number): Promise<number> {
  const run = await found(id);
  if ("movedTo" in run) return run.movedTo;
  const sent = run.sent ?? run.document;
  try {
    // Kept before it goes: whether it arrived may never be heard.
    await change(id, (now) => ({ ...now, sent }));
    const made = await add(run, sent);
    await saveWhatFollowed(id, made.version, sent, made.id);
    return made.id;
  } catch (error) {
    if (error instanceof ApiError && isFinal(error.status))
      await change(id, (now) => ({ ...now, refused: error.message }));
    throw error;
  } finally {
    await begunRuns.look();
  }
}

/** What sending the same again would not change. */
const isFinal = (status: number): boolean =>
  status >= 400 && status < 500 && ![401, 408, 429].includes(status);

/** Saves what was typed since it was sent, in whichever window, until nothing is; from then on it is the server's. */
async function saveWhatFollowed(id: number, version: number, sent: RunDocument, movedTo: number) {
  let there = { version, document: sent };
  for (;;) {
    const left = await moved(id, movedTo, there.document);
    if (!left) return;
    const saved = await save(movedTo, there.version, left);
    there = { version: saved.version, document: left };
  }
}

const same = (one: RunDocument, other: RunDocument) => JSON.stringify(one) === JSON.stringify(other);

/** Puts the server's number in the place of a run that is there as it is here; else gives what is here. */
async function moved(id: number, movedTo: number, there: RunDocument): Promise<RunDocument | undefined> {
  let left: RunDocument | undefined;
  await update<BegunRun | Moved>(
    keyOf(id),
    (run) => {
      left = run && !("movedTo" in run) && !same(run.document, there) ? run.document : undefined;
      return left && run ? run : { movedTo };
    },
    RUNS,
  );
  return left;
}

/** Changes what is kept of a run begun here, as it is by then; not once it is the server's. */
const change = (id: number, to: (now: BegunRun) => BegunRun): Promise<void> =>
  update<BegunRun | Moved | undefined>(
    keyOf(id),
    (run) => (run && !("movedTo" in run) ? to(run) : run),
    RUNS,
  );

const add = (run: BegunRun, document: RunDocument): Promise<Run> =>
  reply(
    api.POST("/api/jobs/{job_id}/runs", {
      params: { path: { job_id: run.job_id } },
      body: { document },
      headers: { "Idempotency-Key": run.key },
    }),
  );

const save = (id: number, version: number, document: RunDocument): Promise<{ version: number }> =>
  reply(api.PUT("/api/runs/{run_id}", { params: { path: { run_id: id } }, body: { version, document } }));
