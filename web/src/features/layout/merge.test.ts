import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { RunDocument, Step } from "@/api/types";
import { followed, merged } from "./merge";
import { idsAfter } from "./steps/row-ids";

const bend = (at: string): Step => ({ kind: "bend", turn: "up", at, to: "back", angle: "90" });
const offset = (at: string, rise: string): Step => ({
  kind: "offset",
  toward: "right",
  rise,
  angle: "30",
  at,
});
const run = (steps: Step[], end = "60"): RunDocument => ({
  trade_size: "3/4",
  start: { heading: "up" },
  steps,
  end: { at: end },
});

const base = run([bend("20"), offset("40", "3"), bend("70")]);

describe("changes of two people", () => {
  it("of different steps, and of different figures of one step, are both there", () => {
    const mine = run([bend("21"), offset("40", "3 1/2"), bend("70")]);
    const theirs = run([bend("20"), offset("41", "3"), bend("70")], "61");
    expect(merged(base, mine, theirs)).toEqual(run([bend("21"), offset("41", "3 1/2"), bend("70")], "61"));
  });

  it("that put in and take out steps are both there, beside figures that change next to them", () => {
    const mine = run([bend("20"), offset("40", "3"), bend("71")]);
    const theirs = run([bend("20"), bend("30"), bend("70"), bend("90")]);
    expect(merged(base, mine, theirs)).toEqual(run([bend("20"), bend("30"), bend("71"), bend("90")]));
    expect(merged(base, theirs, mine)).toEqual(merged(base, mine, theirs));
  });

  it("of the same figure, of the order at one place, or of what the other took out are asked about", () => {
    const put = (one: Step) => run([...base.steps, one]);
    for (const [mine, theirs] of [
      [run([bend("21"), ...base.steps.slice(1)]), run([bend("22"), ...base.steps.slice(1)])],
      [put(bend("80")), put(bend("81"))],
      [run(base.steps.slice(0, 2)), run([...base.steps.slice(0, 2), bend("77")])],
    ] as const) {
      expect(merged(base, mine, theirs)).toBeNull();
      expect(merged(base, mine, theirs, "mine")).toEqual(mine);
      expect(merged(base, mine, theirs, "theirs")).toEqual(theirs);
    }
  });

  it("are asked about where a step that one moved up stands in the place of one that the other turned", () => {
    const bends = run([bend("20"), bend("50"), bend("70")]);
    const mine = run([bend("20"), bend("30"), bend("50")]);
    const theirs = run([bend("20"), bend("50"), { ...bend("70"), turn: "left" } as Step]);
    expect(merged(bends, mine, theirs)).toBeNull();
  });

  it("are put together whatever each changes in steps of its own, in either order", () => {
    const steps = fc.array(fc.integer({ min: 10, max: 99 }), { minLength: 2, maxLength: 9 });
    fc.assert(
      fc.property(steps, fc.infiniteStream(fc.constantFrom("mine", "theirs", "nobody")), (places, luck) => {
        const whose = places.map(() => luck.next().value);
        const changedBy = (...who: string[]) =>
          run(places.map((at, index) => bend(`${at}${who.includes(whose[index] ?? "") ? " 1/2" : ""}`)));
        const both = merged(changedBy(), changedBy("mine"), changedBy("theirs"));
        expect(both).toEqual(changedBy("mine", "theirs"));
      }),
    );
  });
});

it("a row keeps its name, and what is chosen stays so, whoever puts steps in before it", () => {
  const after = [bend("5"), ...base.steps];
  expect(idsAfter({ steps: base.steps, ids: ["a", "b", "c"] }, after, () => "new")).toEqual([
    "new",
    "a",
    "b",
    "c",
  ]);
  expect([0, 2].map((at) => followed(base.steps, after, at))).toEqual([1, 3]);
  expect(followed(base.steps, base.steps.slice(0, 2), 1)).toBe(1);
});
