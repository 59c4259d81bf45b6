import type { Me, RunDocument, Shoe } from "@/api/types";
import { fittingShoe } from "./fitting-shoe";

type Pipe = Pick<RunDocument, "trade_size"> & { material: NonNullable<RunDocument["material"]> };

const USUAL_PIPE: Pipe = { material: "EMT", trade_size: "3/4" };

/** A run, as far as it tells what pipe was measured when. */
export interface PipeMeasured {
  material: string;
  trade_size: string;
  saved_at: string;
}

/** The pipe of the run that was saved last: the next one is mostly of the same. */
export function lastPipe(runs: readonly PipeMeasured[]): Pipe {
  const last = runs.toSorted((one, other) => one.saved_at.localeCompare(other.saved_at)).at(-1);
  return last ? ({ material: last.material, trade_size: last.trade_size } as Pipe) : USUAL_PIPE;
}

type Read = Pick<RunDocument, "tape" | "feet" | "stand_off">;

const AS_SHIPPED: Read = { tape: "1/16", feet: false };

/** How the crew's new runs are read; straps that stand off nothing are not said. */
export const readAs = ({ tape, feet, stand_off }: Me["new_runs"]): Read =>
  ["", "0"].includes(stand_off) ? { tape, feet } : { tape, feet, stand_off };

/** A run as it begins: nothing measured yet, so its numbers are empty and asked for; on the crew's shoe that fits. */
export function newRun(
  name: string,
  shoes: Shoe[],
  read: Read = AS_SHIPPED,
  pipe: Pipe = USUAL_PIPE,
): RunDocument {
  return {
    name,
    ...pipe,
    shoe: fittingShoe(shoes, pipe)?.figures ?? null,
    ...read,
    start: { name: "", heading: "up" },
    steps: [],
    end: { name: "", at: "" },
  };
}
