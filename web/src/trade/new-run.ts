import type { Me, RunDocument, Shoe } from "@/api/types";
import { fittingShoe } from "./fitting-shoe";

const PIPE = { material: "EMT", trade_size: "3/4" } as const;

type Read = Pick<RunDocument, "tape" | "feet" | "stand_off">;

const AS_SHIPPED: Read = { tape: "1/16", feet: false };

/** How the crew's new runs are read; straps that stand off nothing are not said. */
export const readAs = ({ tape, feet, stand_off }: Me["new_runs"]): Read =>
  ["", "0"].includes(stand_off) ? { tape, feet } : { tape, feet, stand_off };

/** A run as it begins: nothing measured yet, so its numbers are empty and asked for; on the crew's shoe that fits. */
export function newRun(name: string, shoes: Shoe[], read: Read = AS_SHIPPED): RunDocument {
  return {
    name,
    ...PIPE,
    shoe: fittingShoe(shoes, PIPE)?.figures ?? null,
    ...read,
    start: { name: "", heading: "up" },
    steps: [],
    end: { name: "", at: "" },
  };
}
