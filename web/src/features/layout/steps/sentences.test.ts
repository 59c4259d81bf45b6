import { describe, expect, it } from "vitest";
import { GLOSSARY } from "@/trade/glossary";
import { newRun } from "@/trade/new-run";
import { FIELD_WORDS, STEP_WORDS } from "@/trade/words";
import { MET, newStep } from "./new-step";
import { type Part, SENTENCES } from "./sentences";

/** Every part of a sentence, also those shown only at times. */
const allParts = (parts: Part[]): Exclude<Part, string>[] =>
  parts.flatMap((part) =>
    typeof part === "string" ? [] : part.show === "when" ? allParts(part.parts) : [part],
  );

describe("sentences", () => {
  it("are there for every kind of step that can be met, each begun by its own words", () => {
    expect(MET.map((met) => met.kind).toSorted()).toEqual(Object.keys(SENTENCES).toSorted());
    expect(Object.keys(STEP_WORDS).toSorted()).toEqual(Object.keys(SENTENCES).toSorted());
  });

  it("show every number that a new step asks for, by a name for those who hear the screen", () => {
    for (const { kind } of MET) {
      const asked = Object.entries(newStep(kind, newRun("Run", []), 0)).filter(([, value]) => value === "");
      const parts = allParts(SENTENCES[kind]);
      for (const [field] of asked) {
        const shown = parts.some(
          (part) =>
            ("field" in part && part.field === field) ||
            (part.show === "rise" && field === "rise") ||
            (part.show === "either" && part.choices.some(({ value }) => value === field)),
        );
        expect(shown, `${kind} ${field}`).toBe(true);
        expect(FIELD_WORDS[field], field).toBeTruthy();
      }
    }
  });

  it("explain only words that are explained", () => {
    for (const parts of Object.values(SENTENCES))
      for (const part of allParts(parts))
        if (part.show === "term") expect(GLOSSARY[part.word].length).toBeGreaterThan(20);
  });
});
