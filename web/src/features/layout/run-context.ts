import { type Context, createContext, useContext } from "react";
import type { FieldReading, Finding, MarksJudged, Plan, RackPlan, Run } from "@/api/types";
import type { Draft } from "./draft";
import type { DraftHandle } from "./use-draft";

/** What lies open beside the list: one thing at a time. */
const SIDES = ["note", "step", "rack", "marks", "history", "about"] as const;
export type Side = (typeof SIDES)[number] | null;

export const isSide = (named: string | null): named is NonNullable<Side> =>
  (SIDES as readonly (string | null)[]).includes(named);

/** What of the draft the views need; how it stands with the server is told in the page's head alone. */
export type Work = Pick<Draft, "document" | "past" | "future">;

/** What a person works on: the document, how it is changed, and whether they may. */
export interface WorkContext extends Omit<DraftHandle, "draft"> {
  draft: Work;
  run: Run;
  mayWrite: boolean;
}

/** The plan of what is written; the last one while the next is under way. */
export interface Planned {
  plan: Plan | undefined;
  /** Of the pipes beside it, where it has a rack. */
  rack: RackPlan | undefined;
  planError: string;
}

/** The step chosen anywhere is chosen everywhere; beside the list one thing lies open. */
export interface Focus {
  chosen: number | null;
  choose: (step: number | null) => void;
  side: Side;
  open: (side: Side) => void;
}

/** Marks that somebody laid, by bend number, while they are checked; and what they will make. */
export interface LaidContext {
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

// One each, so that what changes at a key draws anew only what shows it.
export const WorkContext = createContext<WorkContext | null>(null);
export const PlanContext = createContext<Planned | null>(null);
export const FocusContext = createContext<Focus | null>(null);
export const LaidContext = createContext<LaidContext | null>(null);

function useWithin<T>(context: Context<T | null>): T {
  const found = useContext(context);
  if (found === null) throw new Error("only within a run's page");
  return found;
}

export const useWork = (): WorkContext => useWithin(WorkContext);
export const usePlanned = (): Planned => useWithin(PlanContext);
export const useFocus = (): Focus => useWithin(FocusContext);
export const useMarksCheck = (): LaidContext => useWithin(LaidContext);

/** The findings at a place of the document or below it. */
export function placed(findings: Finding[] | undefined, place: string): Finding[] {
  return (findings ?? []).filter(
    (finding) => finding.place === place || finding.place.startsWith(`${place}.`),
  );
}

/** What was read of the length at a place. */
export const readAt = (plan: Plan | undefined, place: string): FieldReading | undefined =>
  plan?.fields.find((field) => field.place === place);

/** What was read of each length below a place, by its place. */
export const readUnder = (plan: Plan | undefined, place: string): Record<string, FieldReading> =>
  Object.fromEntries(
    (plan?.fields ?? [])
      .filter((field) => field.place.startsWith(`${place}.`))
      .map((field) => [field.place, field]),
  );

/** What is only not measured yet is nothing wrong. */
export const isToMeasure = (finding: Finding): boolean => finding.code === "not_measured";

export const stops = (finding: Finding): boolean => finding.severity === "stop" && !isToMeasure(finding);
