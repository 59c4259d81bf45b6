import type { Plan } from "@/api/types";

// Of a step of more bends (a sweep) only those at its ends are numbered.
const MOST_NUMBERED = 6;

/** Whether a bend's number is written: of long sweeps at the first alone, or at both ends. */
export function isNumbered(plan: Plan, number: number, atBothEnds: boolean): boolean {
  const step = plan.bends[number - 1]?.step;
  const own = plan.bends.filter((bend) => bend.step === step);
  if (own.length <= MOST_NUMBERED || number === own[0]?.number) return true;
  return atBothEnds && number === own.at(-1)?.number;
}
