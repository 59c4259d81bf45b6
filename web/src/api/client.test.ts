// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { api, reply } from "./client";

let answers: (() => Response)[] = [];
let keys: (string | null)[] = [];

beforeEach(() => {
  keys = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    keys.push(request.headers.get("Idempotency-Key"));
    const answer = answers.shift();
    if (!answer) throw new TypeError("no network");
    return answer();
  });
});

afterEach(() => vi.unstubAllGlobals());

const added = () => Response.json({ id: 1 }, { status: 201 });
const brokenOff = () =>
  new Response(new ReadableStream({ start: (body) => body.error(new TypeError("broken off")) }));
const add = () => reply(api.POST("/api/jobs", { body: { name: "Kiln room", place: "" } })).catch(() => null);

test.each([
  ["a proxy that gave up", () => new Response("<h1>504</h1>", { status: 504 })],
  ["a gateway without a server", () => new Response("", { status: 502 })],
  ["a server that is busy", () => Response.json({}, { status: 503 })],
  ["a fault of the server", () => Response.json({}, { status: 500 })],
  ["a page that is not the server's", () => new Response("<h1>Sign in to the network</h1>")],
])("after %s the same write has the same key, and after its answer another", async (_, first) => {
  answers = [first, added, added];
  for (let time = 0; time < 3; time += 1) await add();
  expect(keys[1]).toBe(keys[0]);
  expect(keys[2]).not.toBe(keys[1]);
});

test("an answer without a body is one", async () => {
  answers = [() => new Response(null, { status: 204 }), () => new Response(null, { status: 204 })];
  const run = { params: { path: { run_id: 1 } } };
  for (let time = 0; time < 2; time += 1)
    expect((await api.DELETE("/api/runs/{run_id}", run)).response.status).toBe(204);
  expect(new Set(keys).size).toBe(2);
});

test("an answer that breaks off is none: the write is sent once more, with its key", async () => {
  answers = [brokenOff, added];
  expect(await add()).toEqual({ id: 1 });
  expect(keys).toEqual([keys[0], keys[0]]);
});
