import { entries, get, set } from "idb-keyval";
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
}

/** In its place once it is with the server: the number that it has there. */
interface Moved {
  movedTo: number;
}

export const isBegunHere = (id: number): boolean => id < 0;

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
    id: -now.getTime(),
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

/** Keeps what was typed of a run begun here. */
export async function saveHere(id: number, document: RunDocument): Promise<{ version: number }> {
  const run = await found(id);
  if ("movedTo" in run) throw new Error(String(run.movedTo));
  await set(keyOf(id), { ...run, document, saved_at: new Date().toISOString() }, RUNS);
  return { version: run.version };
}

/** Sends a run begun here, and what was typed of it since it was sent first. Gives its number at the server. */
export async function sendBegun(id: number): Promise<number> {
  const run = await found(id);
  if ("movedTo" in run) return run.movedTo;
  const sent = run.sent ?? run.document;
  // Kept before it goes: whether it arrived may never be heard.
  await set(keyOf(id), { ...run, sent }, RUNS);
  const made = await add(run, sent);
  if (JSON.stringify(sent) !== JSON.stringify(run.document)) await save(made, run.document);
  await set(keyOf(id), { movedTo: made.id } satisfies Moved, RUNS);
  await begunRuns.look();
  return made.id;
}

const add = (run: BegunRun, document: RunDocument): Promise<Run> =>
  reply(
    api.POST("/api/jobs/{job_id}/runs", {
      params: { path: { job_id: run.job_id } },
      body: { document },
      headers: { "Idempotency-Key": run.key },
    }),
  );

const save = ({ id, version }: Run, document: RunDocument): Promise<unknown> =>
  reply(api.PUT("/api/runs/{run_id}", { params: { path: { run_id: id } }, body: { version, document } }));
