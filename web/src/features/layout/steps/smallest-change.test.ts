import { describe, expect, it } from "vitest";
import { smallestChange } from "./smallest-change";

const applied = (before: string, after: string): string => {
  const change = smallestChange(before, after);
  return change ? before.slice(0, change.from) + change.insert + before.slice(change.to) : before;
};

describe("the smallest change of a text", () => {
  it("makes the one of the other, whatever both are", () => {
    const texts = [
      "",
      "a",
      "aa",
      "90 up, back at 20\n",
      "90 up, back at 20 1/2\n90 left, back at 3\n",
      "90 up\n",
    ];
    for (const before of texts) for (const after of texts) expect(applied(before, after)).toBe(after);
  });

  it("touches nothing but what differs, so that a cursor elsewhere stays", () => {
    expect(smallestChange("back at 20, next", "back at 21, next")).toEqual({ from: 9, to: 10, insert: "1" });
    expect(smallestChange("same", "same")).toBeNull();
  });
});
