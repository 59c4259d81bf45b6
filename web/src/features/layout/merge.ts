import { diff3Merge } from "node-diff3";
import type { RunDocument } from "@/api/types";

/** Whose figure stands where two people changed the same one. */
type Side = "mine" | "theirs";
type Fields = Record<string, unknown>;

export const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Two people's changes of one document put together: what only one of them changed is as they have it. Null where both
 * changed the same figure, or the order there, in different ways; with `preferred` that one's stands there.
 */
export function merged(base: RunDocument, mine: RunDocument, theirs: RunDocument): RunDocument | null;
export function merged(
  base: RunDocument,
  mine: RunDocument,
  theirs: RunDocument,
  preferred: Side,
): RunDocument;
export function merged(base: RunDocument, mine: RunDocument, theirs: RunDocument, preferred?: Side) {
  if (preferred) return value(base, mine, theirs, (own, other) => (preferred === "mine" ? own : other));
  return unasked((settle) => value(base, mine, theirs, settle));
}

class Conflict extends Error {}

/** What comes of it where nothing has to be settled; else null. */
function unasked<Result>(work: (settle: Settle) => Result): Result | null {
  try {
    return work(() => {
      throw new Conflict();
    });
  } catch (error) {
    if (error instanceof Conflict) return null;
    throw error;
  }
}

type Settle = <Value>(mine: Value, theirs: Value) => Value;

function value<Value>(base: Value, mine: Value, theirs: Value, settle: Settle): Value {
  // What is the same keeps its identity on this screen.
  if (same(mine, theirs) || same(theirs, base)) return mine;
  if (same(mine, base)) return theirs;
  if (Array.isArray(mine) && Array.isArray(theirs))
    return list(Array.isArray(base) ? base : [], mine, theirs, settle) as Value;
  if (isFields(mine) && isFields(theirs) && mine.kind === theirs.kind)
    return fields(isFields(base) ? base : {}, mine, theirs, settle) as Value;
  return settle(mine, theirs);
}

const isFields = (one: unknown): one is Fields =>
  typeof one === "object" && one !== null && !Array.isArray(one);

function fields(base: Fields, mine: Fields, theirs: Fields, settle: Settle): Fields {
  const names = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])];
  const told = names.map((name) => [name, value(base[name], mine[name], theirs[name], settle)] as const);
  return Object.fromEntries(told.filter(([, one]) => one !== undefined));
}

/** Lists line by line; where lines were put in, by their three-way difference, a stretch that both changed line by line. */
function list(base: unknown[], mine: unknown[], theirs: unknown[], settle: Settle): unknown[] {
  const inPlace = unasked((settle) => lineByLine(base, mine, theirs, settle));
  if (inPlace) return inPlace;
  const own = new Map([...theirs, ...mine].map((one) => [JSON.stringify(one), one]));
  const lines = (of: unknown[]) => of.map((one) => JSON.stringify(one));
  const back = (of: string[]) => of.map((line) => own.get(line) ?? JSON.parse(line));
  return diff3Merge(lines(mine), lines(base), lines(theirs)).flatMap(({ ok, conflict }) => {
    if (ok) return back(ok);
    if (!conflict) return [];
    const { a, o, b } = { a: back(conflict.a), o: back(conflict.o), b: back(conflict.b) };
    return lineByLine(o, a, b, settle) ?? throughout(o, a, b) ?? throughout(o, b, a) ?? settle(a, b);
  });
}

/** Whether lines were changed where they stand, and none was moved, put in or taken out. */
const staysInPlace = (base: unknown[], other: unknown[]): boolean =>
  base.length === other.length &&
  other.every((line, at) => same(line, base[at]) || !base.some((one) => same(one, line)));

function lineByLine(base: unknown[], mine: unknown[], theirs: unknown[], settle: Settle) {
  if (!staysInPlace(base, mine) || !staysInPlace(base, theirs)) return null;
  return base.map((one, at) => value(one, mine[at], theirs[at], settle));
}

/** One changed figures in their places, the other put lines in or took some out; null where they touch the same line. */
function throughout(base: unknown[], inPlace: unknown[], moved: unknown[]): unknown[] | null {
  if (base.length !== inPlace.length) return null;
  const result: unknown[] = [];
  let at = 0;
  for (const one of moved) {
    const found = base.findIndex((line, index) => index >= at && same(line, one));
    if (found < 0) result.push(one);
    else {
      // What the other took out must not have been changed here.
      for (let gone = at; gone < found; gone += 1) if (!same(base[gone], inPlace[gone])) return null;
      result.push(inPlace[found]);
      at = found + 1;
    }
  }
  for (let gone = at; gone < base.length; gone += 1) if (!same(base[gone], inPlace[gone])) return null;
  return result;
}

/** How many lines two lists begin with alike. */
export function alikeAtFirst(before: readonly unknown[], after: readonly unknown[]): number {
  const differs = before.findIndex((line, at) => !same(line, after[at]));
  return Math.min(differs < 0 ? before.length : differs, after.length);
}

/** Where what stood at a place of a list stands after a change: by what is unchanged before or behind it. */
export function followed(before: readonly unknown[], after: readonly unknown[], at: number): number {
  if (before.length === after.length) return at;
  const head = alikeAtFirst(before, after);
  return at < head ? at : Math.max(0, at + after.length - before.length);
}
