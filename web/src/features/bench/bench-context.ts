import { createContext, useContext } from "react";
import type { Arranged, Bench, PlannedMark, SheetBend, StickAtBench } from "@/api/types";
import type { Doing, Waiting } from "./acts-queue";
import type { At } from "./stick-steps";
import type { Refused } from "./use-acts";

export interface BenchContext {
  bench: Bench;
  stick: StickAtBench;
  mayWrite: boolean;
  offline: boolean;
  waiting: Map<number, Waiting>;
  refused: Refused[];
  at: At;
  go: (at: At) => void;
  act: (doing: Doing) => Promise<boolean>;
  arrange: (change: Partial<Arranged>) => void;
  /** Tape readings with the first inch burnt. */
  burnt: boolean;
  setBurnt: (burnt: boolean) => void;
  /** The mark that is shown for a bend, on the reference that was chosen here. */
  markOf: (bend: SheetBend) => PlannedMark;
  setReference: (bend: number, reference: string) => void;
  /** What the dial is set to for a bend, where that is not what the sheet says. */
  dialOf: (bend: SheetBend) => number | undefined;
  setDial: (bend: number, dial: number | null) => void;
}

const Context = createContext<BenchContext | null>(null);

export const BenchProvider = Context.Provider;

export function useBenchContext(): BenchContext {
  const context = useContext(Context);
  if (!context) throw new Error("outside of the bench");
  return context;
}

/** What the tape reads for a mark, as it is held. */
export const tapeAt = (bench: BenchContext, bend: SheetBend): string => {
  const mark = bench.markOf(bend);
  return bench.burnt && mark.reference === bend.use.reference ? bend.burnt.reads : mark.at.reads;
};
