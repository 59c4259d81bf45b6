import type { Step } from "@/api/types";
import { type Condition, type FieldOfKind, kindOf, type StepKind } from "./kinds";

type Fields = Record<string, unknown>;

const isObject = (value: unknown): value is Fields => typeof value === "object" && value !== null;

/** What is written in a field of a step, by its dotted key; undefined where nothing is, or null. */
export function written(step: Step, key: string): unknown {
  let value: unknown = step;
  for (const part of key.split(".")) value = isObject(value) ? value[part] : undefined;
  return value ?? undefined;
}

/** The step with other values in fields, by their dotted keys; the parts that they stand in come with them. */
export function withWritten(step: Step, values: Fields): Step {
  let next = step as unknown as Fields;
  for (const [key, value] of Object.entries(values)) next = withOne(next, key.split("."), value);
  return next as unknown as Step;
}

function withOne(part: Fields, [first = "", ...rest]: string[], value: unknown): Fields {
  if (!rest.length) return { ...part, [first]: value };
  const inner = part[first];
  return { ...part, [first]: withOne(isObject(inner) ? inner : {}, rest, value) };
}

/** The field of a kind, by its dotted key. */
export function fieldOf(kind: StepKind, key: string): FieldOfKind {
  const field = kind.fields[key];
  if (!field) throw new Error(`${kind.kind} has no ${key}`);
  return field;
}

/** Whether a condition holds for a step: what is not written counts as its default. */
export function holds(condition: Condition | undefined, step: Step): boolean {
  if (!condition) return true;
  const { given, filled, is, not, all } = condition;
  if (given !== undefined) return written(step, given) !== undefined;
  if (filled !== undefined) return String(written(step, filled) ?? "").trim() !== "";
  if (is) return String(written(step, is[0]) ?? kindOf(step.kind).fields[is[0]]?.default) === String(is[1]);
  if (not) return !holds(not, step);
  return (all ?? []).every((one) => holds(one, step));
}
