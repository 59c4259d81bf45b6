// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { beginHere, begunRuns, fixHere, putInJob, saveHere, sendBegun } from "./begun-here";
import { showFor } from "./owner";
import { server } from "./reachable";
import type { Job, RunDocument } from "./types";

const JOB = { id: 4, name: "Kiln room" } as Job;
const named = (name: string) => ({ name }) as RunDocument;

/** What was asked of the server, and how it answers. */
let asked: { method: string; url: string; key: string | null; body: Record<string, unknown> }[] = [];
let answer: (method: string) => Promise<Response> | Response;

beforeEach(async () => {
  showFor(`1.${Math.random()}`);
  asked = [];
  let version = 1;
  answer = (method) => (method === "PUT" ? Response.json({ version: ++version }) : made());
  vi.stubGlobal("fetch", async (request: Request) => {
    const { method, url, headers } = request;
    asked.push({ method, url, key: headers.get("Idempotency-Key"), body: await request.json() });
    return answer(method);
  });
});
afterEach(() => {
  server.change("answers");
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const made = () => Response.json({ id: 77, version: 1 }, { status: 201 });
const begun = () => beginHere(JOB, named("as begun"), "Dana");

test("what is typed while it is sent follows as a save, and the run is the server's from then on", async () => {
  const { id } = await begun();
  answer = async (method) => {
    if (method === "PUT") return Response.json({ version: 2 });
    await saveHere(id, 0, named("typed meanwhile"));
    return made();
  };
  expect(await sendBegun(id)).toBe(77);
  const once = [...new Map(asked.map((one) => [one.key, one])).values()];
  expect(once.map(({ method, body }) => [method, body.document])).toEqual([
    ["POST", named("as begun")],
    ["PUT", named("typed meanwhile")],
  ]);
  expect(begunRuns.snapshot()).toEqual([]);
  // A window that still shows it saves it as it would any other.
  await saveHere(id, 2, named("and after"));
  expect(asked.at(-1)).toMatchObject({ method: "PUT", body: { version: 2, document: named("and after") } });
});

test("an answer that was lost does not make it twice, whatever is typed since", async () => {
  const { id } = await begun();
  answer = () => Promise.reject(new TypeError("no network"));
  await expect(sendBegun(id)).rejects.toThrow();
  await saveHere(id, 0, named("typed since"));
  answer = (method) => (method === "PUT" ? Response.json({ version: 2 }) : made());
  await sendBegun(id);
  const sent = asked.filter(({ method }) => method === "POST");
  expect(new Set(sent.map(({ key, body }) => `${key} ${JSON.stringify(body)}`)).size).toBe(1);
  expect(asked.at(-1)?.body.document).toEqual(named("typed since"));
});

test("what something was done by goes up as a version of its own, with the number that was told then", async () => {
  const { id } = await begun();
  expect([await fixHere(id), await fixHere(id)]).toEqual([1, 1]);
  await saveHere(id, 0, named("typed"));
  expect(await fixHere(id)).toBe(2);
  await saveHere(id, 0, named("typed again"));
  // The last answer is lost: all is sent once more, with the keys that it had.
  let puts = 0;
  answer = (method) => {
    if (method !== "PUT") return made();
    puts += 1;
    return puts === 2 ? Promise.reject(new TypeError("no network")) : Response.json({ version: puts + 1 });
  };
  vi.spyOn(navigator, "onLine", "get").mockReturnValue(false);
  await expect(sendBegun(id)).rejects.toThrow();
  puts = 0;
  answer = (method) => (method === "PUT" ? Response.json({ version: ++puts + 1 }) : made());
  await sendBegun(id);
  const sent = asked.map(({ key, body }) => `${key} ${JSON.stringify(body)}`);
  expect(sent.slice(3)).toEqual(sent.slice(0, 3));
  expect(asked.slice(3).map(({ body }) => [body.version, body.document])).toEqual([
    [undefined, named("as begun")],
    [1, named("typed")],
    [2, named("typed again")],
  ]);
  expect(await fixHere(id)).toBeUndefined();
});

test("one whose job is gone stays here with the reason, and another job takes it", async () => {
  const { id } = await begun();
  answer = () => Response.json({ detail: "The job is gone." }, { status: 404 });
  await expect(sendBegun(id)).rejects.toThrow();
  expect(begunRuns.snapshot()).toMatchObject([{ id, refused: "The job is gone." }]);
  answer = made;
  await putInJob(id, { id: 9, name: "Glaze room" });
  expect(asked.at(-1)?.url).toContain("/api/jobs/9/runs");
  expect(asked.at(-1)?.key).not.toBe(asked[0]?.key);
  expect(begunRuns.snapshot()).toEqual([]);
});
