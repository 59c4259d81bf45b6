import type { RunDocument, Step } from "@/api/types";
import { wayOfGiving } from "@/features/layout/steps/new-step";
import { type Clause, type FieldOfKind, kindOf } from "@/trade/kinds";
import { holds, written } from "@/trade/written";
import { clauseWord } from "@/words/clauses";

/** What is asked on one screen: where the pipe sets off, what is met next, a field of a step, where it ends. */
export type Question =
  | { of: "start" }
  | { of: "met"; index: number }
  | { of: "step"; index: number; field: string }
  | { of: "end" }
  | { of: "whole" };

/** A field that is asked for, and what is chosen with it: fields and ways of giving one, as the sentence has them. */
export interface Asked {
  field: string;
  beside: string[];
}

const SLOT = /\{\{([^}]+)\}\}/g;
const slotsOf = (says: string): string[] =>
  [...(clauseWord(`says.${says}`) ?? "").matchAll(SLOT)].flatMap(([, name]) => (name ? [name] : []));

const isShown = ({ when, adds }: Clause, step: Step): boolean =>
  adds ? adds.some((key) => written(step, key) !== undefined) : holds(when, step);

/** What stands in the step's sentence: its fields, and its ways of giving a figure with the fields of the one taken. */
function shownIn(clauses: Clause[], step: Step): string[] {
  const { ways } = kindOf(step.kind);
  return clauses
    .filter((clause) => isShown(clause, step))
    .flatMap(({ says }) => slotsOf(says))
    .flatMap((name) => {
      const given = ways[name] ? wayOfGiving(step, ways[name])?.sentence : undefined;
      return given ? [name, ...shownIn(given, step)] : [name];
    });
}

const ASKED_ALONE: FieldOfKind["unit"][] = ["direction", "length", "signed", "angle", "count"];

/** What is asked of a step, one thing after the other, in the order of the clause table; names and what few change are not. */
export function askedOf(step: Step): Asked[] {
  const { fields, ways, sentence } = kindOf(step.kind);
  const shown = shownIn(sentence, step);
  const keys = Object.keys(fields).filter((key) => shown.includes(key));
  const asked: Asked[] = [];
  let beside: string[] = [];
  for (const key of keys) {
    const { unit, late } = fields[key] ?? {};
    beside.push(...shown.filter((name) => ways[name] && shown[shown.indexOf(name) + 1] === key));
    if (unit === "name" || late) continue;
    if (!unit || !ASKED_ALONE.includes(unit)) beside.push(key);
    else if (unit === "direction") asked.push({ field: key, beside: [] });
    else {
      asked.push({ field: key, beside });
      beside = [];
    }
  }
  asked.at(-1)?.beside.push(...beside);
  return asked;
}

const isEmpty = (step: Step, field: string): boolean =>
  kindOf(step.kind).fields[field]?.begins === "" && String(written(step, field) ?? "").trim() === "";

type StepQuestion = Extract<Question, { of: "step" }>;

const stepQuestions = (document: RunDocument): StepQuestion[] =>
  document.steps.flatMap((step, index) =>
    step.muted ? [] : askedOf(step).map(({ field }): StepQuestion => ({ of: "step", index, field })),
  );

const isEndOpen = ({ end }: RunDocument): boolean => !end.open && String(end.at ?? "").trim() === "";

/** Whether a figure is asked for. */
export function isFigure({ steps }: RunDocument, now: Question): boolean {
  const step = now.of === "step" ? steps[now.index] : undefined;
  if (!step || now.of !== "step") return now.of === "end";
  return kindOf(step.kind).fields[now.field]?.unit !== "direction";
}

/** With what measuring goes on: the first that is still to be measured. */
export function firstOpen(document: RunDocument): Question {
  const { steps } = document;
  const open = stepQuestions(document).find(({ index, field }) => {
    const step = steps[index];
    return step && isEmpty(step, field);
  });
  if (open) return open;
  if (!isEndOpen(document)) return { of: "whole" };
  return steps.length ? { of: "met", index: steps.length } : { of: "start" };
}

/** All that is asked of a run, in order; what is met is asked anew only at its end. */
function allOf(document: RunDocument): Question[] {
  const met: Question = { of: "met", index: document.steps.length };
  return [{ of: "start" }, ...stepQuestions(document), met, { of: "end" }, { of: "whole" }];
}

const isSame = (one: Question, other: Question): boolean => JSON.stringify(one) === JSON.stringify(other);

/** What is asked after a question. */
export function questionAfter(document: RunDocument, now: Question): Question {
  if (now.of === "met") return stepQuestions(document).find((one) => one.index >= now.index) ?? { of: "end" };
  const all = allOf(document);
  return all[all.findIndex((one) => isSame(one, now)) + 1] ?? { of: "whole" };
}

/** What was asked before it: in front of a step's first figure, what it is that is met. */
export function questionBefore(document: RunDocument, now: Question): Question {
  if (now.of === "met")
    return stepQuestions(document).findLast((one) => one.index < now.index) ?? { of: "start" };
  const all = allOf(document);
  const last = all[all.findIndex((one) => isSame(one, now)) - 1] ?? { of: "start" };
  const isFirst = now.of === "step" && (last.of !== "step" || last.index !== now.index);
  return isFirst ? { of: "met", index: now.index } : last;
}

/** The question itself, or what came in its place: of a figure that is given otherwise now, the one that it is given by. */
export function settled(document: RunDocument, now: Question): Question {
  if (now.of !== "step") return now;
  const step = document.steps[now.index];
  if (!step) return firstOpen(document);
  const asked = askedOf(step);
  if (asked.some((one) => one.field === now.field)) return now;
  const { ways } = kindOf(step.kind);
  const gaveIt = (name: string) => (ways[name] ?? []).some((way) => now.field in way.begins);
  const field = (asked.find((one) => one.beside.some(gaveIt)) ?? asked[0])?.field;
  return field ? { ...now, field } : { of: "met", index: now.index };
}

/** The first question of a step. */
export const firstOf = (document: RunDocument, index: number): Question =>
  stepQuestions(document).find((one) => one.index === index) ?? { of: "met", index };
