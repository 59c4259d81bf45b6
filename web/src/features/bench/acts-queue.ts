import type { Bench, BenchAct, StickAtBench } from "@/api/types";

/** What was done at a run's bench and is not known to be kept by the server yet, oldest first. */
export type Queue = BenchAct[];

/** An act as a person does it; key and time are given here. */
type Undone<Act> = Act extends BenchAct ? Omit<Act, "key" | "at" | "version"> : never;
export type Doing = Undone<BenchAct>;

/** An act as it is kept: with a key and a time of its own, and the run's version on whose sheet it was done. */
export const asAct = (doing: Doing, key: string, at: Date, version?: number): BenchAct =>
  ({ ...doing, key, at: at.toISOString(), ...(version === undefined ? {} : { version }) }) as BenchAct;

/** A reading that is entered but not sent yet. */
export interface Waiting {
  angle: number;
  tape: string | number | null;
  turned: number;
}

/** The readings of a piece that wait to be sent, by bend; one that was taken back is gone. */
export function waitingOn(queue: Queue, piece: number): Map<number, Waiting> {
  const waiting = new Map<number, Waiting>();
  for (const act of queue) {
    if (act.piece !== piece) continue;
    if (act.kind === "bent")
      waiting.set(act.bend, { angle: act.angle, tape: act.tape ?? null, turned: act.turned ?? 0 });
    if (act.kind === "unbent") waiting.delete(act.bend);
    if (act.kind === "scrapped") waiting.clear();
  }
  return waiting;
}

/** How a stick is arranged, as last said here whether it is sent or not. */
export function arrangedOf({ sheet, arranged }: StickAtBench, queue: Queue): Record<string, unknown> {
  const last = queue.findLast((act) => act.kind === "arrange" && act.piece === sheet.piece);
  return last?.kind === "arrange" ? last.arranged : { ...arranged };
}

type FitAct = Extract<BenchAct, { kind: "checked" | "unchecked" }>;

/** What was looked at when it was fitted; who looked first stays. */
function withCheck(stick: StickAtBench, { kind, item, at }: FitAct): StickAtBench {
  const known = stick.fit_checked.find((one) => one.item === item);
  const others = stick.fit_checked.filter((one) => one.item !== item);
  const fit_checked = kind === "checked" ? [...others, known ?? { item, by: "", at }] : others;
  return { ...stick, fit_checked };
}

/** A stick that was scrapped: nothing is done on the next one. */
const begunAnew = (stick: StickAtBench): StickAtBench => ({
  ...stick,
  cut_at: null,
  fitted_at: null,
  fit_checked: [],
  begun: false,
});

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
      if (act.kind === "scrapped") shown = begunAnew(shown);
      if (act.kind === "checked" || act.kind === "unchecked") shown = withCheck(shown, act);
    }
    return shown;
  });
  return { ...bench, sticks };
}
