import type { RunDocument } from "@/api/types";

/** A run as it begins: nothing measured yet, so its numbers are empty and asked for. */
export function newRun(name: string): RunDocument {
  return {
    name,
    material: "EMT",
    trade_size: "3/4",
    shoe: null,
    tape: "1/16",
    feet: false,
    start: { name: "", heading: "up" },
    steps: [],
    end: { name: "", at: "" },
  };
}
