import "fake-indexeddb/auto";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ApiError } from "@/api/client";
import type { Bench, BenchAct } from "@/api/types";
import { actInWords } from "./act-in-words";
import { type Answer, MOST_AT_ONCE, Outbox, type Surroundings } from "./outbox";
import { IndexedOutbox } from "./outbox-store";

const OWNER = "1.2";
const BAD_PIECE = 99;
let databases = 0;

const cut = (key: string, piece: number): BenchAct =>
  ({ kind: "cut", piece, key, at: "2026-05-04T07:30:00Z" }) as BenchAct;

/** What becomes of a sending: it comes through, is lost on the way there or back, or is answered by an error. */
type Fate = "through" | "lost" | "reply lost" | 400 | 401 | 403 | 404 | 413 | 422 | 429 | 500 | 503;
const IS_FINAL = new Set<Fate>([400, 422]);

/** A server that does each key once, and cannot read an act of the bad piece. */
class FakeServer {
  readonly done: string[] = [];
  readonly sendings: number[] = [];

  constructor(public fates: Fate[] = []) {}

  async post(runId: number, acts: BenchAct[]): Promise<Answer> {
    const fate = this.fates.shift() ?? "through";
    this.sendings.push(acts.length);
    if (fate === "lost") throw new ApiError(0, "No reply from the server.");
    if (typeof fate === "number" && !IS_FINAL.has(fate)) throw new ApiError(fate, `answered ${fate}`);
    if (acts.some((act) => act.piece === BAD_PIECE)) throw new ApiError(422, "it could not be read");
    for (const { key } of acts) if (!this.done.includes(key)) this.done.push(key);
    if (fate === "reply lost") throw new ApiError(0, "No reply from the server.");
    const outcomes = acts.map(({ key }) => ({ key, done: true, says: "" }));
    return { outcomes, bench: { run_id: runId } as Bench };
  }
}

/** One browser: a store that all tabs share, one lock, and a clock that is moved on by hand. */
class Browser {
  readonly store = new IndexedOutbox(`outbox ${++databases}`);
  readonly tabs: Outbox[] = [];
  readonly pauses: number[] = [];
  private timers: (() => void)[] = [];
  private turn: Promise<void> = Promise.resolve();
  private under: Promise<unknown>[] = [];

  constructor(readonly server: FakeServer) {}

  open(): Outbox {
    const tab = new Outbox(OWNER, this.around());
    this.tabs.push(tab);
    tab.open();
    return tab;
  }

  reload(at: number): void {
    this.tabs[at]?.close();
    const fresh = new Outbox(OWNER, this.around());
    this.tabs[at] = fresh;
    fresh.open();
  }

  /** Everything that is under way comes to its end; then what waits for the clock is done. */
  async settle(): Promise<void> {
    for (let quiet = 0; quiet < 3; quiet++) {
      const waited = this.under.length;
      await Promise.allSettled(this.under);
      await new Promise((resolve) => setTimeout(resolve, 0));
      if (this.under.length > waited) quiet = -1;
    }
    this.under = [];
  }

  async tick(): Promise<void> {
    const due = this.timers;
    this.timers = [];
    for (const task of due) task();
    await this.settle();
  }

  private around(): Surroundings {
    return {
      store: this.store,
      post: (runId, acts) => this.server.post(runId, acts),
      alone: (task) => {
        this.turn = this.turn.then(task, task);
        this.under.push(this.turn);
        return this.turn;
      },
      tell: () => undefined,
      later: (task, milliseconds) => {
        this.pauses.push(milliseconds);
        this.timers.push(task);
        return () => {
          this.timers = this.timers.filter((one) => one !== task);
        };
      },
      sent: async () => undefined,
    };
  }
}

async function open(fates: Fate[] = []) {
  const browser = new Browser(new FakeServer(fates));
  const tab = browser.open();
  await browser.settle();
  return { browser, server: browser.server, tab };
}

describe("the outbox", () => {
  it("keeps everything through whatever is no fault of the act, and says how it stands", async () => {
    for (const [fate, standing] of [
      ["lost", "no network"],
      ["reply lost", "no network"],
      [401, "barred"],
      [403, "barred"],
      [413, "busy"],
      [429, "busy"],
      [500, "busy"],
      [503, "busy"],
    ] as const) {
      const { browser, server, tab } = await open([fate]);
      await tab.act(1, cut("a", 1));
      await browser.settle();
      expect([fate, tab.snapshot().standing, tab.snapshot().kept.length]).toEqual([fate, standing, 1]);
      await browser.tick();
      expect([server.done, tab.snapshot().standing, tab.snapshot().kept]).toEqual([["a"], "quiet", []]);
    }
  });

  it("keeps what was done on a run that is gone, with why, and sends the next", async () => {
    const { browser, server, tab } = await open([404]);
    await tab.act(1, cut("a", 1));
    await browser.settle();
    await tab.act(2, cut("b", 1));
    await browser.settle();
    expect(tab.snapshot().kept.map((one) => [one.act.key, one.refused])).toEqual([["a", "answered 404"]]);
    expect(server.done).toEqual(["b"]);
  });

  it("tries again after pauses that double, up to a minute", async () => {
    const { browser, tab } = await open(Array(9).fill(503));
    await tab.act(1, cut("a", 1));
    await browser.settle();
    for (let turn = 0; turn < 7; turn++) await browser.tick();
    expect(browser.pauses).toEqual([1000, 2000, 4000, 8000, 16_000, 32_000, 60_000, 60_000]);
  });

  it("refuses the one act that cannot be read, and no other", async () => {
    const { browser, server, tab } = await open(["lost"]);
    for (const [key, piece] of [
      ["a", 1],
      ["b", BAD_PIECE],
      ["c", 2],
    ] as const)
      await tab.act(1, cut(key, piece));
    await browser.settle();
    await browser.tick();
    expect(server.done).toEqual(["a", "c"]);
    expect(tab.snapshot().kept.map((one) => [one.act.key, one.refused])).toEqual([
      ["b", "it could not be read"],
    ]);
    await tab.tryAgain(tab.snapshot().kept[0]?.seq ?? 0);
    await browser.settle();
    expect(tab.snapshot().kept.map((one) => one.refused)).toEqual(["it could not be read"]);
    await tab.letGo(tab.snapshot().kept[0]?.seq ?? 0);
    expect(tab.snapshot().kept).toEqual([]);
  });

  it("sends what waited for long in parts that the server takes", async () => {
    const { browser, server, tab } = await open(["lost"]);
    await tab.act(1, cut("0", 1));
    await browser.settle();
    for (let at = 1; at < 3 * MOST_AT_ONCE; at++) await browser.store.append(OWNER, 1, cut(String(at), 1));
    server.fates = [413];
    await browser.tick();
    expect(server.done).toHaveLength(3 * MOST_AT_ONCE);
    expect(Math.max(...server.sendings)).toBe(MOST_AT_ONCE);
  });

  it("does not pretend: what this device cannot keep is sent at once, or is not entered", async () => {
    const { browser, server, tab } = await open();
    browser.store.append = () => Promise.reject(new DOMException("full", "QuotaExceededError"));
    expect(await tab.act(1, cut("a", 1))).toBe(true);
    expect(server.done).toEqual(["a"]);
    server.fates = ["lost"];
    expect(await tab.act(1, cut("b", 1))).toBe(false);
    expect(tab.snapshot().notKept).toContain("no room");
    expect(server.done).toEqual(["a"]);
  });

  it("takes one arrangement of a stick for another that was not sent, and is one person's", async () => {
    const { store } = new Browser(new FakeServer());
    const arrange = (key: string, piece: number) =>
      ({ kind: "arrange", arranged: {}, piece, key, at: "2026-05-04T07:30:00Z" }) as BenchAct;
    for (const [key, piece] of [
      ["a", 1],
      ["b", 2],
      ["c", 1],
    ] as const)
      await store.append(OWNER, 1, arrange(key, piece));
    await store.append("1.3", 1, cut("d", 1));
    expect((await store.all(OWNER)).map((one) => one.act.key)).toEqual(["b", "c"]);
    expect(await store.count()).toBe(3);
  });

  it("loses and doubles nothing, whatever happens on the way", async () => {
    const fate = fc.constantFrom<Fate>(
      "through",
      "lost",
      "reply lost",
      400,
      401,
      403,
      413,
      422,
      429,
      500,
      503,
    );
    const event = fc.oneof(
      {
        weight: 5,
        arbitrary: fc.record({
          does: fc.constant("act" as const),
          tab: fc.nat(2),
          run: fc.nat(1),
          bad: fc.nat(9),
        }),
      },
      { weight: 2, arbitrary: fc.record({ does: fc.constant("reload" as const), tab: fc.nat(2) }) },
      { weight: 3, arbitrary: fc.record({ does: fc.constant("tick" as const) }) },
      { weight: 2, arbitrary: fc.record({ does: fc.constant("settle" as const) }) },
    );
    await fc.assert(
      fc.asyncProperty(
        fc.array(fate, { maxLength: 25 }),
        fc.array(event, { maxLength: 30 }),
        async (fates, events) => {
          const { browser, server } = await open(fates);
          browser.open();
          browser.open();
          const entered: { key: string; run: number; bad: boolean }[] = [];
          for (const [at, one] of events.entries()) {
            if (one.does === "act") {
              const act = { key: `key ${at}`, run: one.run, bad: one.bad === 0 };
              if (await browser.tabs[one.tab]?.act(one.run, cut(act.key, act.bad ? BAD_PIECE : 1)))
                entered.push(act);
            } else if (one.does === "reload") browser.reload(one.tab);
            else await browser[one.does]();
          }
          // The network comes back, and the tabs that are left send.
          server.fates = [];
          for (let round = 0; round < 4; round++) await browser.tick();
          for (const tab of browser.tabs) tab.send();
          await browser.settle();
          const kept = await browser.store.all(OWNER);
          const good = entered.filter((act) => !act.bad).map((act) => act.key);
          expect([...server.done].sort()).toEqual([...good].sort());
          expect(new Set(server.done).size).toBe(server.done.length);
          expect(kept.map((one) => one.act.key)).toEqual(
            entered.filter((act) => act.bad).map((act) => act.key),
          );
          expect(kept.every((one) => one.refused !== null)).toBe(true);
          for (const run of [0, 1]) {
            const inOrder = entered.filter((act) => act.run === run && !act.bad).map((act) => act.key);
            expect(server.done.filter((key) => inOrder.includes(key))).toEqual(inOrder);
          }
        },
      ),
      { numRuns: 60 },
    );
  }, 60_000);
});

describe("an act in words", () => {
  it("says the stick, the bend and what was read", () => {
    const bent = {
      kind: "bent",
      piece: 1,
      bend: 2,
      angle: 45,
      tape: "71 1/2",
      again: false,
      key: "a",
      at: "",
    };
    expect(actInWords(bent as BenchAct)).toBe("stick 1, bend 2, 45° and 71 1/2 on the tape");
    expect(actInWords(cut("a", 3))).toBe("stick 3, cut");
  });
});
