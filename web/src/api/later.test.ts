// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { beginHere, sendBegun } from "./begun-here";
import { letGo, nowOrLater, sendLater, type Thing, waiting } from "./later";
import { showFor } from "./owner";
import { server } from "./reachable";
import type { RunDocument } from "./types";

const SCRAP: Thing = {
  kind: "scrap",
  body: { length: "41", trade_size: "3/4", material: "EMT", count: 1 } as never,
};
const JOB: Thing = { kind: "job", body: { name: "Kiln room", place: "" } };

let asked: { url: string; key: string | null; body: Record<string, unknown> }[] = [];
let answer: () => Promise<Response> | Response;
const made = () => Response.json({ id: 77, version: 1 }, { status: 201 });
const noNetwork = () => Promise.reject(new TypeError("no network"));

beforeEach(() => {
  showFor(`1.${Math.random()}`);
  server.change("answers");
  asked = [];
  answer = made;
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push({
      url: new URL(request.url).pathname,
      key: request.headers.get("Idempotency-Key"),
      body: request.method === "GET" ? {} : await request.json(),
    });
    return answer();
  });
});
afterEach(() => {
  server.change("answers");
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const away = () => server.change("away");

test("with the server in reach it is added there, and nothing is kept", async () => {
  await nowOrLater(SCRAP);
  await waiting.look();
  expect([asked.length, waiting.snapshot()]).toEqual([1, []]);
});

test("out of reach it is kept with the time when it was laid there, and sent once", async () => {
  away();
  await nowOrLater(SCRAP);
  expect(waiting.snapshot()).toMatchObject([{ kind: "scrap", body: { length: "41" } }]);
  answer = noNetwork;
  expect(await sendLater()).toBe(false);
  answer = made;
  expect(await sendLater()).toBe(true);
  expect(new Set(asked.map(({ key }) => key)).size).toBe(1);
  expect(asked.at(-1)?.body.since).toMatch(/^20/);
  expect(waiting.snapshot()).toEqual([]);
});

test("an answer that was lost does not make it twice: it is sent once more as it was", async () => {
  answer = noNetwork;
  await nowOrLater(SCRAP);
  answer = made;
  await sendLater();
  expect(new Set(asked.map((one) => JSON.stringify(one))).size).toBe(1);
  expect(waiting.snapshot()).toEqual([]);
});

test("what is refused stays with the reason, the rest is sent, and it can be let go", async () => {
  away();
  await nowOrLater(SCRAP);
  await nowOrLater(JOB);
  const answers = [() => Response.json({ detail: "Too long for a rack." }, { status: 422 }), made];
  answer = () => (answers.shift() ?? made)();
  await sendLater();
  const [left] = waiting.snapshot();
  expect(waiting.snapshot()).toMatchObject([{ kind: "scrap", refused: "Too long for a rack." }]);
  expect(asked.map(({ url }) => url)).toEqual(["/api/rack", "/api/jobs"]);
  await letGo(left?.id ?? 0);
  expect(waiting.snapshot()).toEqual([]);
});

const RENAMED: Thing = {
  kind: "job change",
  target: 4,
  seen: { name: "Kiln", place: "" },
  body: { name: "Kiln room", place: "" },
};
const jobs = (name: string) => Response.json([{ id: 4, name, place: "", runs: [] }]);

test("a change made here is sent where nobody else changed it, as it was changed last", async () => {
  away();
  await nowOrLater({ ...RENAMED, body: { name: "Kilns", place: "" } });
  await nowOrLater(RENAMED);
  expect(waiting.snapshot()).toMatchObject([{ body: { name: "Kiln room" } }]);
  answer = () => (asked.at(-1)?.key ? made() : jobs("Kiln"));
  await sendLater();
  expect(asked.filter(({ key }) => key).map(({ url, body }) => [url, body.name])).toEqual([
    ["/api/jobs/4", "Kiln room"],
  ]);
  expect(waiting.snapshot()).toEqual([]);
});

test("what another wrote meanwhile is not written over; the change stays here and is told", async () => {
  away();
  await nowOrLater(RENAMED);
  answer = () => jobs("Kiln house");
  await sendLater();
  expect(asked.every(({ key }) => !key)).toBe(true);
  expect(waiting.snapshot()[0]?.refused).toContain("Somebody else changed it meanwhile");
});

test("a change whose answer was lost is not taken for another's", async () => {
  answer = noNetwork;
  await nowOrLater(RENAMED);
  answer = made;
  await sendLater();
  expect(new Set(asked.map(({ key, url }) => `${key} ${url}`)).size).toBe(1);
  expect(waiting.snapshot()).toEqual([]);
});

test("a run that was begun in a job added here goes to that job", async () => {
  away();
  await nowOrLater(JOB);
  const [job] = waiting.snapshot();
  const run = await beginHere(
    { id: job?.id ?? 0, name: "Kiln room" },
    { name: "Feed" } as RunDocument,
    "Dana",
  );
  await sendBegun(run.id);
  expect(asked.map(({ url }) => url)).toEqual(["/api/jobs", "/api/jobs/77/runs"]);
  expect(waiting.snapshot()).toEqual([]);
});

test("what this device has no room for is not entered", async () => {
  away();
  vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
    throw new DOMException("full", "QuotaExceededError");
  });
  await expect(nowOrLater(SCRAP)).rejects.toThrow("no room");
});
