import { describe, expect, it } from "vitest";
import type { SheetBend, StickAtBench } from "@/api/types";
import { degreesOf, goesOnAt, judgedOf, screensOf, sumBefore } from "./stick-steps";

const bend = (number: number, made: object | null = null) =>
  ({
    number,
    angle: 30,
    least: 29.5,
    most: 30.5,
    by_hand: 0.5,
    most_turned: 1,
    made,
  }) as unknown as SheetBend;

const stick = (bends: SheetBend[], cut_at: string | null) =>
  ({ sheet: { bends }, cut_at, made: bends.filter((one) => one.made) }) as unknown as StickAtBench;

const read = {
  angle_reads: "30.2°",
  off_reads: "−0.2°",
  tape: { reads: "20" },
  tape_off: { reads: "-1/16" },
  within: true,
};

describe("a stick's screens", () => {
  it("go on where the work stands", () => {
    const waiting = new Map([[2, { angle: 30, tape: null, turned: 0 }]]);
    expect(goesOnAt(stick([bend(2), bend(1)], null), new Map())).toBe("cut");
    expect(goesOnAt(stick([bend(2), bend(1)], "now"), new Map())).toBe(2);
    expect(goesOnAt(stick([bend(2), bend(1)], null), waiting)).toBe(1);
    expect(goesOnAt(stick([bend(2), bend(1, read)], "now"), waiting)).toBe("fit");
  });

  it("judge a reading that waits by the tolerance that came with the bend", () => {
    const off = (angle: number) => judgedOf(bend(1), { angle, tape: null, turned: 0 });
    expect([29.5, 30.5, 29.4, 31.5].map((angle) => off(angle)?.within)).toEqual([true, true, false, false]);
    expect(off(29.4)?.off).toBe("−0.6°");
    expect(judgedOf(bend(1), undefined)).toBeNull();
    expect(judgedOf(bend(1, read), undefined)).toMatchObject({ off: "−0.2°", tape: "20 (1/16 short)" });
  });
});

describe("degrees as written", () => {
  it("are read, or told to be none", () => {
    expect(["30", "22.5°", "22 1/2", "22,5", " 89.7 "].map(degreesOf)).toEqual([30, 22.5, 22.5, 22.5, 89.7]);
    expect(["", "x", "0", "180", "-5", "1/0 2"].map(degreesOf)).toEqual([null, null, null, null, null, null]);
  });
});

describe("a sweep", () => {
  const shot = (number: number, made: object | null = null) =>
    ({
      ...bend(number, made),
      act: 1,
      begins_act: number === 1,
      sweep: { shot: number, of: 3 },
    }) as unknown as SheetBend;

  it("has one screen: the shot that is looked at, else the next to be made, else its last", () => {
    const swept = stick([shot(1, read), shot(2), shot(3), { ...bend(4), act: 2 } as SheetBend], "now");
    expect(screensOf(swept, "cut")).toEqual(["cut", 2, 4, "fit"]);
    expect(screensOf(swept, 3)).toEqual(["cut", 3, 4, "fit"]);
    const done = stick([shot(1, read), shot(2, read), shot(3, read)], "now");
    expect(screensOf(done, "fit")).toEqual(["cut", 3, "fit"]);
    const third = done.sheet.bends[2] as SheetBend;
    const waiting = new Map([[2, { angle: 29, tape: null, turned: 0 }]]);
    const half = [shot(1, { ...read, angle: 31 }), shot(2), third];
    expect(sumBefore(half, third, waiting)).toBe(60);
    expect(sumBefore(half, third, new Map())).toBe(61);
  });
});
