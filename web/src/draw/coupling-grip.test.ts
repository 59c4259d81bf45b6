import { describe, expect, it } from "vitest";
import { within } from "./coupling-grip";

const ROOM: [number, number][] = [
  [10.03, 20.97],
  [40, 60],
];

describe("a coupling that is dragged", () => {
  it("stays on the tape's sixteenths and inside its room", () => {
    for (let at = 0; at < 80; at += 0.37) {
      const put = within(at, ROOM, "1/16");
      expect(put * 16).toBe(Math.round(put * 16));
      expect(ROOM.some(([low, high]) => put >= low && put <= high)).toBe(true);
    }
  });

  it("goes to the nearest place there is", () => {
    expect(within(50.02, ROOM, "1/16")).toBe(50);
    expect(within(5, ROOM, "1/16")).toBe(10.0625);
    expect(within(29, ROOM, "1/16")).toBe(20.9375);
    expect(within(35, ROOM, "1/16")).toBe(40);
    expect(within(99, ROOM, "1/16")).toBe(60);
  });
});
