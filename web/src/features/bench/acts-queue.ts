import type { Bench, BenchAct, Outcome } from "@/api/types";

/** What was done at a run's bench and is not known to be kept by the server yet, oldest first. */
export type Queue = BenchAct[];

/** An act as a person does it; key and time are given here. */
type Undone<Act> = Act extends BenchAct ? Omit<Act, "key" | "at"> : never;
export type Doing = Undone<BenchAct>;

/** Queues are a person's own: on a shared phone nobody sends what another has done. */
const storageKey = (owner: string, runId: number): string => `${prefixOf(owner)}${runId}`;
const prefixOf = (owner: string): string => `crelda.bench.${owner}.`;

/** The runs at whose benches this person did something that is not sent yet. */
export function runsUnsent(owner: string): number[] {
  try {
    const names = Object.keys(localStorage).filter((name) => name.startsWith(prefixOf(owner)));
    return names.map((name) => Number(name.slice(prefixOf(owner).length)));
  } catch {
    return [];
  }
}

export function readQueue(owner: string, runId: number): Queue {
  try {
    return JSON.parse(localStorage.getItem(storageKey(owner, runId)) ?? "[]") as Queue;
  } catch {
    return [];
  }
}

export function keepQueue(owner: string, runId: number, queue: Queue): void {
  try {
    if (queue.length === 0) localStorage.removeItem(storageKey(owner, runId));
    else localStorage.setItem(storageKey(owner, runId), JSON.stringify(queue));
  } catch {
    // A full or forbidden storage costs what is queued only if the page is closed before it is sent.
  }
}

/** A queue with one more act. What is arranged anew takes the place of what was arranged before and not sent. */
export function queued(queue: Queue, doing: Doing, key: string, at: Date): Queue {
  const act = { ...doing, key, at: at.toISOString() } as BenchAct;
  const replaced =
    act.kind === "arrange" ? queue.filter((one) => one.kind !== "arrange" || one.piece !== act.piece) : queue;
  return [...replaced, act];
}

/** A queue after the server has told what came of some of its acts; refused ones are not sent again. */
export function answered(queue: Queue, outcomes: Outcome[]): Queue {
  const told = new Set(outcomes.map((outcome) => outcome.key));
  return queue.filter((act) => !told.has(act.key));
}

/** A reading that is entered but not sent yet. */
export interface Waiting {
  angle: number;
  tape: string | number | null;
}

/** The readings of a piece that wait to be sent, by bend; one that was taken back is gone. */
export function waitingOn(queue: Queue, piece: number): Map<number, Waiting> {
  const waiting = new Map<number, Waiting>();
  for (const act of queue) {
    if (act.piece !== piece) continue;
    if (act.kind === "bent") waiting.set(act.bend, { angle: act.angle, tape: act.tape ?? null });
    if (act.kind === "unbent") waiting.delete(act.bend);
    if (act.kind === "scrapped") waiting.clear();
  }
  return waiting;
}

/** The bench as it will stand: cut and fitted as last said here, whether sent or not. */
export function asQueued(bench: Bench, queue: Queue): Bench {
  if (queue.length === 0) return bench;
  const sticks = bench.sticks.map((stick) => {
    let shown = stick;
    for (const act of queue) {
      if (act.piece !== stick.sheet.piece) continue;
      if (act.kind === "cut") shown = { ...shown, cut_at: act.at, begun: true };
      if (act.kind === "uncut") shown = { ...shown, cut_at: null };
      if (act.kind === "fitted") shown = { ...shown, fitted_at: act.at };
      if (act.kind === "unfitted") shown = { ...shown, fitted_at: null };
    }
    return shown;
  });
  return { ...bench, sticks };
}
