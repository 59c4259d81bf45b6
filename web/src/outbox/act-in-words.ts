import type { BenchAct } from "@/api/types";

const WORDS: Record<Exclude<BenchAct["kind"], "bent">, string> = {
  arrange: "how it is to be bent",
  cut: "cut",
  uncut: "not cut after all",
  fitted: "fitted",
  unfitted: "not fitted after all",
  scrapped: "scrapped",
  unbent: "entered by mistake",
  left: "left as it is",
  checked: "looked at",
  unchecked: "not looked at after all",
};

/** An act as a person would say it: “stick 1, bend 2, 45° and 71 1/2 on the tape”. */
export function actInWords(act: BenchAct): string {
  const bend = "bend" in act ? `, bend ${act.bend}` : "";
  const what =
    act.kind === "bent" ? `${act.angle}°${act.tape ? ` and ${act.tape} on the tape` : ""}` : WORDS[act.kind];
  return `stick ${act.piece}${bend}, ${what}`;
}
