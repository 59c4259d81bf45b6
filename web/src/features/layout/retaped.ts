import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { FieldReading, RunDocument, Tape } from "@/api/types";
import { applyEdits, written } from "@/features/layout/steps/apply-edits";
import { useWork } from "./run-context";
import { askPlan } from "./use-plan";

const isMetric = (tape: Tape | undefined) => tape === "1 mm";

/**
 * The run for another tape: where the unit changes, each bare figure gets the one that it had, so nothing moves.
 * A figure that was typed since it was read is meant in the new tape's unit and stays as it is.
 */
export function retaped(document: RunDocument, tape: Tape, figures: readonly FieldReading[]): RunDocument {
  const edits = figures.flatMap(({ place, written: read, spelled }) => {
    const now = written(document, place);
    const isAsRead = typeof now === "number" ? now === Number(read) : now === read;
    return isAsRead && spelled !== null ? [{ op: "set" as const, place, value: spelled }] : [];
  });
  return { ...applyEdits(document, edits), tape };
}

/** Takes another tape; where the unit changes, once all figures of the document as it is now have been read. */
export function useRetaping(): (tape: Tape) => void {
  const { draft, edit } = useWork();
  const { document } = draft;
  const [wanted, want] = useState<{ tape: Tape; document: RunDocument }>();
  const read = useQuery({
    queryKey: ["figures", wanted?.document],
    queryFn: () => askPlan(wanted?.document ?? document),
    enabled: wanted !== undefined,
    gcTime: 0,
  });
  useEffect(() => {
    if (!wanted || read.isPending) return;
    if (read.data) edit(retaped(document, wanted.tape, read.data.fields), "");
    want(undefined);
  }, [document, edit, read.data, read.isPending, wanted]);
  return (tape) => {
    if (isMetric(document.tape) === isMetric(tape)) edit({ ...document, tape }, "");
    else want({ tape, document });
  };
}
