import { useOutletContext } from "react-router";
import type { FieldReading, Finding, MarksJudged, Plan, Run } from "@/api/types";
import type { Draft } from "./draft";
import type { DraftHandle } from "./use-draft";

/** What lies open beside the list: one thing at a time. */
export type Side = "note" | "step" | "marks" | "history" | null;

/** What of the draft the views need; how it stands with the server is told in the page's head alone. */
export type Work = Pick<Draft, "document" | "past" | "future">;

export interface RunContext extends Omit<DraftHandle, "draft"> {
  draft: Work;
  run: Run;
  plan: Plan | undefined;
  planError: string;
  mayWrite: boolean;
  /** The step chosen anywhere is chosen everywhere. */
  chosen: number | null;
  choose: (step: number | null) => void;
  side: Side;
  open: (side: Side) => void;
  /** Marks that somebody laid, by bend number, while they are checked; and what they will make. */
  laid: LaidMarks | null;
  setLaid: (laid: LaidMarks | null) => void;
  judged: MarksJudged | null;
  setJudged: (judged: MarksJudged | null) => void;
}

export interface LaidMark {
  at: string;
  reference: string;
  hook: "A" | "B";
  angle: string;
  /** Degrees rolled off the plan. */
  turned: number;
}

export type LaidMarks = Record<number, LaidMark>;

export const useRunContext = (): RunContext => useOutletContext<RunContext>();

/** The findings at a place of the document or below it. */
export function placed(findings: Finding[] | undefined, place: string): Finding[] {
  return (findings ?? []).filter(
    (finding) => finding.place === place || finding.place.startsWith(`${place}.`),
  );
}

/** What was read of the length at a place. */
export const readAt = (run: RunContext, place: string): FieldReading | undefined =>
  run.plan?.fields.find((field) => field.place === place);

export const stops = (finding: Finding): boolean => finding.severity === "stop";
