import { describe, expect, it } from "vitest";
import { WriteKeys } from "./write-keys";

describe("the keys of writes", () => {
  const numbered = () => {
    let count = 0;
    return new WriteKeys(() => `key ${++count}`);
  };

  it("are the same for the same write until an answer comes", () => {
    const writes = numbered();
    expect([writes.keyOf("add", 0), writes.keyOf("take", 0), writes.keyOf("add", 5)]).toEqual([
      "key 1",
      "key 2",
      "key 1",
    ]);
    writes.answered("add");
    expect([writes.keyOf("add", 6), writes.keyOf("take", 6)]).toEqual(["key 3", "key 2"]);
  });

  it("are new for what is done again much later", () => {
    const writes = numbered();
    writes.keyOf("add", 0);
    expect(writes.keyOf("add", 11 * 60_000)).toBe("key 2");
  });
});
