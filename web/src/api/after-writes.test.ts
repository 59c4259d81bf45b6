import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { describe, expect, it } from "vitest";
import { askAnew, takeAsNow } from "./after-writes";

const KEY = ["jobs"];

/** A view of something; each answer to it is given by hand, in any order. */
function watched() {
  const answers: ((answer: string) => void)[] = [];
  const queries = new QueryClient();
  const queryFn = () => new Promise<string>((resolve) => answers.push(resolve));
  const view = new QueryObserver(queries, { queryKey: KEY, queryFn });
  const leave = view.subscribe(() => undefined);
  const answer = async (which: number, text: string) => {
    answers[which]?.(text);
    await new Promise((resolve) => setTimeout(resolve));
  };
  return { queries, answer, leave, asked: () => answers.length, shown: () => view.getCurrentResult().data };
}

describe("what is shown after a write", () => {
  it("is asked for after it, also where the view's first answer is still awaited", async () => {
    const { queries, answer, leave, asked, shown } = watched();
    const done = askAnew(queries, [KEY]);
    await answer(0, "before the write");
    expect(asked()).toBe(2);
    await answer(1, "after the write");
    await done;
    expect(shown()).toBe("after the write");
    leave();
  });

  it("is what the write was answered with, whatever comes late", async () => {
    const { queries, answer, leave, shown } = watched();
    await answer(0, "at first");
    void queries.invalidateQueries({ queryKey: KEY });
    await takeAsNow(queries, KEY, "after the write");
    await answer(1, "before the write");
    expect(shown()).toBe("after the write");
    leave();
  });
});
