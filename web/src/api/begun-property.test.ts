// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import fc from "fast-check";
import { afterEach, expect, test, vi } from "vitest";
import { beginHere, begunRuns, fixHere, saveHere, sendBegun } from "./begun-here";
import { nowOrLater, sendLater, waiting } from "./later";
import { showFor } from "./owner";
import { server } from "./reachable";
import type { RunDocument } from "./types";

/** What becomes of a request: it comes through, or is lost on the way there or back, or is answered by an error. */
type Fate = "through" | "lost" | "reply lost" | 401 | 429 | 500 | 503;

/** A server that does each key once and keeps every version of every run, and the jobs that were added. */
class FakeServer {
  readonly runs: { job: number; versions: string[] }[] = [];
  readonly jobs: string[] = [];
  fates: Fate[] = [];
  private readonly answered = new Map<string, unknown>();

  async fetch(request: Request): Promise<Response> {
    const fate = this.fates.shift() ?? "through";
    if (fate === "lost") throw new TypeError("no network");
    if (typeof fate === "number") return Response.json({}, { status: fate });
    const key = request.headers.get("Idempotency-Key") ?? "";
    if (!this.answered.has(key)) this.answered.set(key, this.done(request, await request.json()));
    if (fate === "reply lost") throw new TypeError("no network");
    return Response.json(this.answered.get(key), { status: 200 });
  }

  private done(
    { method, url }: Request,
    body: { name?: string; version?: number; document?: RunDocument },
  ): unknown {
    const [, job] = /jobs\/(\d+)\/runs$/.exec(url) ?? [];
    const name = body.document?.name ?? "";
    if (method === "POST" && !job) return { id: this.jobs.push(body.name ?? "") };
    if (method === "POST") {
      this.runs.push({ job: Number(job), versions: [name] });
      return { id: this.runs.length, version: 1 };
    }
    const run = this.runs[Number(/\d+$/.exec(url)?.[0]) - 1];
    if (run?.versions.length !== body.version) throw new Error(`saved on version ${body.version}`);
    return { version: run?.versions.push(name) };
  }
}

afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
  server.change("answers");
});

const fate = fc.oneof(
  { weight: 5, arbitrary: fc.constant<Fate>("through") },
  { weight: 3, arbitrary: fc.constant<Fate>("reply lost") },
  { weight: 1, arbitrary: fc.constantFrom<Fate>("lost", 401, 429, 500, 503) },
);
const fates = fc.array(fate, { maxLength: 8 });
const event = fc.oneof(
  { weight: 3, arbitrary: fc.record({ does: fc.constant("type" as const) }) },
  { weight: 3, arbitrary: fc.record({ does: fc.constant("cut" as const) }) },
  { weight: 3, arbitrary: fc.record({ does: fc.constant("send" as const), fates }) },
);

test("a run and its job, begun here, are there once, with each version that something was done by", async () => {
  // A second try at once would only take its pause.
  vi.spyOn(navigator, "onLine", "get").mockReturnValue(false);
  let now = 1_700_000_000_000;
  vi.spyOn(Date, "now").mockImplementation(() => now);
  await fc.assert(
    fc.asyncProperty(fc.array(event, { maxLength: 14 }), fc.boolean(), async (events, jobFirst) => {
      const there = new FakeServer();
      vi.stubGlobal("fetch", (request: Request) => there.fetch(request));
      showFor(`1.${Math.random()}`);
      await nowOrLater({ kind: "job", body: { name: "Kiln room", place: "" } });
      const job = waiting.snapshot()[0]?.id ?? 0;
      const { id } = await beginHere({ id: job, name: "Kiln room" }, named(0), "Dana");
      const done: { version: number | undefined; by: string }[] = [];
      let typed = 0;
      for (const one of events) {
        if (one.does === "type") await saveHere(id, 0, named(++typed)).catch(() => undefined);
        else if (one.does === "cut") done.push({ version: await fixHere(id), by: `run ${typed}` });
        else {
          // What a page remembers of its writes is gone an hour later, as when it is loaded anew.
          now += 3_600_000;
          there.fates = [...one.fates];
          if (jobFirst) await sendLater();
          await sendBegun(id).catch(() => undefined);
          // Once the server has it, it is no more begun here.
          if (!begunRuns.snapshot().length) break;
        }
      }
      there.fates = [];
      now += 3_600_000;
      await sendBegun(id);
      await sendLater();
      expect([there.jobs, waiting.snapshot(), begunRuns.snapshot()]).toEqual([["Kiln room"], [], []]);
      expect(there.runs.map((run) => run.job)).toEqual([1]);
      expect(there.runs[0]?.versions.at(-1)).toBe(`run ${typed}`);
      for (const { version, by } of done) expect(there.runs[0]?.versions[(version ?? 0) - 1]).toBe(by);
    }),
    { numRuns: 150 },
  );
}, 60_000);

const named = (number: number) => ({ name: `run ${number}` }) as RunDocument;
