import { describe, expect, test } from "vitest";
import type { RunDocument, Step } from "@/api/types";
import { givenAs, newStep } from "@/features/layout/steps/new-step";
import { made } from "@/test/made";
import { KINDS, type KindName, kindOf } from "@/trade/kinds";
import { newRun } from "@/trade/new-run";
import { withWritten } from "@/trade/written";
import { clauseWord } from "@/words/clauses";
import {
  askedOf,
  firstOf,
  firstOpen,
  type Question,
  questionAfter,
  questionBefore,
  settled,
} from "./questions";

function run(...kinds: KindName[]): RunDocument {
  let document = newRun("Run", []);
  for (const kind of kinds)
    document = { ...document, steps: [...document.steps, newStep(kind, document, document.steps.length)] };
  return document;
}

const fieldsOf = (step: Step) => askedOf(step).map((one) => one.field);

describe("what is asked of a step", () => {
  test("comes in the order of measuring, choices beside the figure that they are about", () => {
    expect(askedOf(newStep("bend", run(), 0))).toEqual([
      { field: "turn", beside: [] },
      { field: "at", beside: ["to"] },
    ]);
    expect(askedOf(newStep("offset", run(), 0))).toEqual([
      { field: "toward", beside: [] },
      { field: "rise", beside: ["rise_by"] },
      { field: "angle", beside: [] },
      { field: "at", beside: ["ref"] },
    ]);
    expect(fieldsOf(newStep("saddle3", run(), 0))).toEqual([
      "toward",
      "over.height",
      "over.clear",
      "angle",
      "at",
    ]);
  });

  test("is every figure that is still to be measured, each with its question or its name", () => {
    for (const { kind, fields } of KINDS) {
      const step = newStep(kind, run(), 0);
      const asked = fieldsOf(step);
      const empty = Object.keys(fields).filter(
        (key) => fields[key]?.begins === "" && fields[key].unit !== "name",
      );
      expect(asked, kind).toEqual(expect.arrayContaining(empty));
      for (const field of asked) {
        const says = ["ask", "field", "tape"].some((group) =>
          [`${group}.${kind}.${field}`, `${group}.${field}`].some((key) => clauseWord(key)),
        );
        expect(says, `${kind} ${field}`).toBe(true);
        if (fields[field]?.unit === "direction")
          expect(clauseWord(`ask.${kind}.${field}`) ?? clauseWord(`ask.${field}`), field).toBeTruthy();
      }
    }
  });

  test("changes with the way in which a figure is given", () => {
    const document = run("offset");
    const ways = kindOf("offset").ways.rise_by ?? [];
    const over = ways.find((one) => one.way === "box");
    const [step] = document.steps as [Step];
    const got = { ...document, steps: [over ? givenAs(step, over, "1/16") : step] };
    expect(settled(got, { of: "step", index: 0, field: "rise" })).toEqual({
      of: "step",
      index: 0,
      field: "over.height",
    });
    expect(settled(document, { of: "step", index: 3, field: "at" })).toEqual(firstOpen(document));
  });
});

describe("a run that is measured", () => {
  test("begins where it sets off, and goes on with what is still open", () => {
    expect(firstOpen(run())).toEqual({ of: "start" });
    const document = run("bend", "offset");
    expect(firstOpen(document)).toEqual({ of: "step", index: 0, field: "at" });
    const [bend, offset] = document.steps as [Step, Step];
    const filled = {
      ...document,
      steps: [withWritten(bend, { at: "30" }), withWritten(offset, { rise: "4", at: "60" })],
    };
    expect(firstOpen(filled)).toEqual({ of: "met", index: 2 });
    expect(firstOpen({ ...filled, end: { at: "20" } })).toEqual({ of: "whole" });
    expect(firstOpen({ ...filled, end: { open: true } })).toEqual({ of: "whole" });
    expect(firstOpen(made.document)).toEqual({ of: "whole" });
  });

  test("is asked through from its start to its end, and back the same way", () => {
    const document = run("offset", "bend", "coupling");
    const asked: Question[] = [{ of: "start" }];
    for (let now = asked[0]; now && now.of !== "whole"; ) {
      now = questionAfter(document, now);
      asked.push(now);
    }
    expect(asked.filter((one) => one.of === "step")).toHaveLength(7);
    expect(asked.slice(-3)).toEqual([{ of: "met", index: 3 }, { of: "end" }, { of: "whole" }]);
    for (const [at, question] of asked.entries()) {
      const last = questionBefore(document, question);
      // In front of a step stands what is met there.
      const isThere = last.of === "met" && question.of === "step" && last.index === question.index;
      if (at > 0 && !isThere) expect(last).toEqual(asked[at - 1]);
    }
    expect(questionBefore(document, { of: "met", index: 1 })).toEqual({ of: "step", index: 0, field: "at" });
    expect(questionBefore(document, { of: "met", index: 0 })).toEqual({ of: "start" });
    expect(firstOf(document, 1)).toEqual({ of: "step", index: 1, field: "turn" });
  });

  test("is not asked for what is left out", () => {
    const document = run("bend", "offset");
    const [bend] = document.steps as [Step];
    const muted = { ...document, steps: document.steps.with(0, { ...bend, muted: true }) };
    expect(firstOpen(muted)).toEqual({ of: "step", index: 1, field: "rise" });
  });
});
