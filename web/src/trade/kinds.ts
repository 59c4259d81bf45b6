import type { Step } from "@/api/types";
import { clauseWord } from "@/words/clauses";
import table from "./clauses.json";

export type KindName = Step["kind"];

/** When a clause applies: exactly one of these tests. */
export interface Condition {
  given?: string;
  filled?: string;
  is?: [field: string, wanted: string | number];
  not?: Condition;
  all?: Condition[];
}

/** What a new step begins with in a field: as it stands, by the tape, or from the run around it. */
export type Begins =
  | string
  | number
  | { usual: [inches: string, mm: string] }
  | { proposed: "across" | "outward" | "surface" | "box_end" };

export interface FieldOfKind {
  unit: "length" | "signed" | "angle" | "direction" | "choice" | "name" | "count" | "size" | "material";
  begins?: Begins;
  offered?: string[];
  default?: string;
  optional?: boolean;
  /** Few change it: Enter passes it over. */
  late?: boolean;
}

export interface Clause {
  says: string;
  when?: Condition;
  /** A step at rest goes without it, but for where it applies. */
  onRequest?: boolean;
  /** Fields that come and go together, by a button. */
  adds?: string[];
}

/** One way to give a figure. */
export interface WayToGive {
  way: string;
  when: Condition;
  sentence: Clause[];
  begins: Record<string, Begins>;
  sets: Record<string, string>;
}

export interface StepKind {
  kind: KindName;
  /** A drawing of it, 34 wide and 22 high. */
  profile: string;
  /** Where in it the tape lies for a length, from its hook to where it is read; by what it is measured to too. */
  tapes: Record<string, [x: number, y: number, endX: number, endY: number]>;
  fields: Record<string, FieldOfKind>;
  sentence: Clause[];
  ways: Record<string, WayToGive[]>;
  /** How the pipes of a rack can take it, the usual way first. */
  rack: NonNullable<Step["rack"]>["how"][];
}

/** Every kind of step as the server has it (`./crelda generate`), the most usual first. */
export const KINDS = table as unknown as StepKind[];

const BY_NAME = new Map(KINDS.map((one) => [one.kind, one]));

/** What is known of a kind of step. */
export function kindOf(name: KindName): StepKind {
  const kind = BY_NAME.get(name);
  if (!kind) throw new Error(`no such kind of step: ${name}`);
  return kind;
}

/** What a kind of step is called. */
export const kindWord = (name: KindName): string => clauseWord(`kind.${name}`) ?? name;

/** The same within a sentence. */
export const kindWithin = (name: KindName): string => clauseWord(`kind.${name}.within`) ?? name;

/** How a field is called for those who hear the screen. */
export const fieldWord = (field: string): string => clauseWord(`field.${field}`) ?? field;

/** A choice with its word and what it means, by the key of its word. */
export function choiceOf<Value extends string>(value: Value, key: string) {
  const hint = clauseWord(`${key}.hint`);
  return { value, label: clauseWord(key) ?? value, ...(hint ? { hint } : {}) };
}
