import type { Plan, RunDocument, Tape } from "@/api/types";
import { applyEdits } from "@/features/walk/steps/apply-edits";

/** The run for another tape: where the unit changes, each bare figure gets the one that it had, so nothing moves. */
export function retaped(document: RunDocument, tape: Tape, plan: Plan | undefined): RunDocument {
  const isMetric = (one: Tape | undefined) => one === "1 mm";
  if (isMetric(document.tape) === isMetric(tape)) return { ...document, tape };
  const edits = (plan?.fields ?? []).flatMap(({ place, spelled }) =>
    spelled === null ? [] : [{ op: "set" as const, place, value: spelled }],
  );
  return { ...applyEdits(document, edits), tape };
}
