import { describe, expect, it } from "vitest";
import { LatestOnly } from "./latest";

function setUp() {
  const asked: string[] = [];
  const told: string[] = [];
  const answers: (() => void)[] = [];
  const line = new LatestOnly<string, string>(
    (question) => {
      asked.push(question);
      return new Promise((resolve, reject) =>
        answers.push(() => (question === "bad" ? reject(new Error("no")) : resolve(question.toUpperCase()))),
      );
    },
    (_, outcome) => told.push(outcome.error ? "error" : String(outcome.got)),
  );
  const answer = async () => {
    answers.shift()?.();
    await new Promise((resolve) => setTimeout(resolve));
  };
  return { line, asked, told, answer };
}

describe("asking one thing at a time", () => {
  it("skips what was overtaken while waiting", async () => {
    const { line, asked, told, answer } = setUp();
    for (const question of ["a", "ab", "abc", "abcd"]) line.want(question);
    expect(asked).toEqual(["a"]);
    await answer();
    expect(asked).toEqual(["a", "abcd"]);
    await answer();
    expect(told).toEqual(["A", "ABCD"]);
  });

  it("goes on after a failure and says it", async () => {
    const { line, told, answer } = setUp();
    line.want("bad");
    line.want("good");
    await answer();
    await answer();
    expect(told).toEqual(["error", "GOOD"]);
  });

  it("tells nothing once stopped", async () => {
    const { line, asked, told, answer } = setUp();
    line.want("a");
    line.want("b");
    line.stop();
    await answer();
    expect([asked, told]).toEqual([["a"], []]);
  });
});
