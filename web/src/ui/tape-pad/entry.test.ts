import { describe, expect, test } from "vitest";
import { joinedBy, partOf, shortened, withDigit, withFeet, withPart } from "./entry";

const digits = (text: string, typed: string) => [...typed].reduce(withDigit, text);

describe("a figure typed with the pad", () => {
  test("is whole inches, and a fraction that is picked and stays behind them", () => {
    expect(withPart(digits("", "71"), "1/2")).toBe("71 1/2");
    expect(withPart("71 1/2", "1/4")).toBe("71 1/4");
    expect(withDigit("7 1/2", "1")).toBe("71 1/2");
    expect(withPart("71 1/2", "1/2")).toBe("71");
    expect(withPart("", "3/8")).toBe("3/8");
    expect(partOf("5' 11 3/16")).toBe("3/16");
  });

  test("is feet and inches", () => {
    expect(withPart(digits(withFeet("5"), "11"), "1/2")).toBe("5' 11 1/2");
    expect(withFeet("5' 11")).toBe("5' 11");
    expect(withFeet("")).toBe("");
  });

  test("is added to, taken from, and read again", () => {
    expect(withPart(digits(joinedBy("71 1/2", "+"), "3"), "1/2")).toBe("71 1/2 + 3 1/2");
    expect(digits(joinedBy("72", "less"), "2")).toBe("72 less 2");
    expect(withPart(digits(joinedBy("71 1/2", "again"), "71"), "5/8")).toBe("71 1/2 again 71 5/8");
    expect(joinedBy("71 + ", "less")).toBe("71 less ");
    expect(joinedBy("", "+")).toBe("");
  });

  test("is taken back as it was typed", () => {
    let text = "5' 11 1/2 + 3";
    const seen = [];
    while (text) {
      text = shortened(text);
      seen.push(text);
    }
    expect(seen).toEqual(["5' 11 1/2 + ", "5' 11 1/2", "5' 11", "5' 1", "5'", "5", ""]);
  });

  test("of what was typed otherwise only the end is changed", () => {
    expect(withDigit("71.5", "2")).toBe("71.52");
    expect(withDigit("71 and a half", "2")).toBe("71 and a half2");
    expect(shortened("1816mm")).toBe("1816m");
    expect(withDigit("1".repeat(60), "2")).toBe("1".repeat(60));
  });
});
