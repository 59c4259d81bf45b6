import { useState } from "react";
import { useWork } from "@/features/layout/run-context";
import { useIsPhone, useMeasureChoice } from "./measure-choice";
import { firstOf, firstOpen, type Question, settled } from "./questions";

/** The question that is asked of the run now, and how another is. */
export interface Guided {
  now: Question;
  ask: (next: Question) => void;
  /** Back to a step. */
  open: (step: number) => void;
}

/** A run asked for one thing after the other: on a phone while it is not whole, unless chosen otherwise; null: it is a list. */
export function useGuided(): Guided | null {
  const { draft, mayWrite } = useWork();
  const { document } = draft;
  const isPhone = useIsPhone();
  const chosen = useMeasureChoice();
  const [asked, ask] = useState<Question>(() => firstOpen(document));
  // As it was opened: the last figure does not change the screen.
  const [begun] = useState(asked.of !== "whole");
  if (!isPhone || !mayWrite || !(chosen === null ? begun : chosen === "guided")) return null;
  return { now: settled(document, asked), ask, open: (step) => ask(firstOf(document, step)) };
}
