import type { RunDocument, Step, Tape } from "@/api/types";
import { usual } from "@/draw/fractions";
import { type Begins, type KindName, kindOf, type WayToGive } from "@/trade/kinds";
import type { Heading } from "@/trade/words";
import { holds, withWritten, written } from "@/trade/written";

const ACROSS: Record<Heading, Heading> = {
  up: "right",
  down: "right",
  left: "down",
  right: "down",
  out: "right",
  in: "right",
};

/** A step to begin with: turned to a direction across the pipe, its numbers still to be measured. */
export function newStep(kind: KindName, document: RunDocument, index: number): Step {
  const fields = Object.entries(kindOf(kind).fields).flatMap(([key, { begins }]) =>
    begins === undefined ? [] : [[key, begun(begins, document, index)]],
  );
  return withWritten({ kind } as Step, Object.fromEntries(fields));
}

function begun(begins: Begins, document: RunDocument, index: number): unknown {
  if (typeof begins !== "object") return begins;
  if ("usual" in begins) return usual(...begins.usual, document.tape);
  const before = headingBefore(document, index);
  const outward = before === "out" || before === "in" ? ACROSS[before] : "out";
  switch (begins.proposed) {
    case "across":
      return ACROSS[before];
    case "outward":
      return outward;
    case "surface":
      return outward === "out" ? "in" : outward;
    case "box_end":
      return index === 0 ? "start" : "end";
  }
}

/** The heading as the person named it last; only to propose a direction. */
export function headingBefore(document: RunDocument, index: number): Heading {
  const turns = document.steps
    .slice(0, index)
    .flatMap((step) => ("turn" in step && !step.muted ? [step.turn] : []));
  return turns.at(-1) ?? document.start.heading;
}

/** The step with a figure given in another way: what only the old way has is taken out, what both have is kept. */
export function givenAs(step: Step, way: WayToGive, tape: Tape | undefined): Step {
  const { fields, ways } = kindOf(step.kind);
  const all = Object.values(ways).find((some) => some.includes(way)) ?? [];
  const parts = (one: WayToGive) => Object.keys(one.begins).map((key) => key.split(".")[0] ?? key);
  const own = new Set(parts(way));
  // What has a default of its own is never nothing.
  const gone = all.flatMap(parts).filter((key) => !own.has(key) && fields[key]?.default === undefined);
  const emptied = withWritten(step, Object.fromEntries(gone.map((key) => [key, null])));
  const missing = Object.entries(way.begins).flatMap(([key, begins]) => {
    if (written(emptied, key) !== undefined) return [];
    return [[key, typeof begins === "object" && "usual" in begins ? usual(...begins.usual, tape) : begins]];
  });
  return withWritten(emptied, { ...Object.fromEntries(missing), ...way.sets });
}

/** The way in which a figure of the step is given. */
export const wayOfGiving = (step: Step, ways: WayToGive[]): WayToGive | undefined =>
  ways.find(({ when }) => holds(when, step)) ?? ways[0];
