import type { RunDocument, Shoe } from "@/api/types";
import { fittingShoe } from "./fitting-shoe";

const PIPE = { material: "EMT", trade_size: "3/4" } as const;

/** A run as it begins: nothing measured yet, so its numbers are empty and asked for; on the crew's shoe that fits. */
export function newRun(name: string, shoes: Shoe[]): RunDocument {
  return {
    name,
    ...PIPE,
    shoe: fittingShoe(shoes, PIPE)?.figures ?? null,
    tape: "1/16",
    feet: false,
    start: { name: "", heading: "up" },
    steps: [],
    end: { name: "", at: "" },
  };
}
