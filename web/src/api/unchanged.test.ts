import { describe, expect, it } from "vitest";
import { Unchanged } from "./unchanged";

const ADDRESS = "http://127.0.0.1/api/runs/1/bench";

/** A server whose answer is at a version; what it was asked with is noted. */
function server() {
  const tags: (string | null)[] = [];
  const at = { version: 1 };
  const answer = async (request: Request) => {
    const tag = `W/"${at.version}"`;
    tags.push(request.headers.get("If-None-Match"));
    if (request.headers.get("If-None-Match") === tag) return new Response(null, { status: 304 });
    return new Response(`version ${at.version}`, { headers: { ETag: tag, Date: "today" } });
  };
  return { tags, at, answer };
}

describe("what is asked again and again", () => {
  const setUp = () => {
    const { tags, at, answer } = server();
    const unchanged = new Unchanged();
    const ask = async (whose = "dana") => {
      const got = await unchanged.ask(new Request(ADDRESS), whose, answer);
      return [got.status, await got.text()];
    };
    return { tags, at, ask };
  };

  it("is what was answered before as long as the server says so", async () => {
    const { tags, at, ask } = setUp();
    expect([await ask(), await ask()]).toEqual([
      [200, "version 1"],
      [200, "version 1"],
    ]);
    at.version = 2;
    expect([await ask(), await ask()]).toEqual([
      [200, "version 2"],
      [200, "version 2"],
    ]);
    expect(tags).toEqual([null, 'W/"1"', 'W/"1"', 'W/"2"']);
  });

  it("is nobody else's", async () => {
    const { tags, ask } = setUp();
    await ask();
    await ask("marek");
    expect(tags).toEqual([null, null]);
  });
});
