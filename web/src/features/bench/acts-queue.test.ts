import { describe, expect, it } from "vitest";
import type { Bench } from "@/api/types";
import { answered, asQueued, type Queue, queued, waitingOn } from "./acts-queue";

const NOW = new Date("2026-05-04T07:30:00Z");
const bent = (bend: number, angle: number) =>
  ({ kind: "bent", piece: 1, bend, angle, again: false }) as const;

function queueOf(...doings: Parameters<typeof queued>[1][]): Queue {
  return doings.reduce<Queue>((queue, doing, at) => queued(queue, doing, `key ${at}`, NOW), []);
}

describe("acts at the bench while there is no network", () => {
  it("wait in order, each with its own key and time", () => {
    const queue = queueOf({ kind: "cut", piece: 1 }, bent(1, 30));
    expect(queue.map((act) => [act.kind, act.key, act.at])).toEqual([
      ["cut", "key 0", "2026-05-04T07:30:00.000Z"],
      ["bent", "key 1", "2026-05-04T07:30:00.000Z"],
    ]);
  });

  it("leave once the server has told what came of them, done or refused; others stay", () => {
    const queue = queueOf(bent(1, 30), bent(2, 45));
    const left = answered(queue, [{ key: "key 0", done: false, says: "entered already" }]);
    expect(left.map((act) => act.key)).toEqual(["key 1"]);
  });

  it("keep only the last arrangement of a piece", () => {
    const arranged = (hooks: string, piece: number) =>
      ({ kind: "arrange", piece, arranged: { hooks } }) as const;
    const queue = queueOf(arranged("one_way", 1), arranged("one_way", 2), arranged("habit", 1));
    expect(queue.map((act) => act.key)).toEqual(["key 1", "key 2"]);
  });

  it("show the readings that wait, the last of each bend, without what was taken back or scrapped", () => {
    const queue = queueOf(bent(1, 30), bent(2, 45), bent(1, 31), { kind: "unbent", piece: 1, bend: 2 });
    expect([...waitingOn(queue, 1)]).toEqual([[1, { angle: 31, tape: null }]]);
    expect(waitingOn(queue, 2).size).toBe(0);
    expect(waitingOn([...queue, ...queueOf({ kind: "scrapped", piece: 1 })], 1).size).toBe(0);
  });

  it("show a stick as cut and fitted as last said here", () => {
    const bench = {
      sticks: [{ sheet: { piece: 1 }, cut_at: null, fitted_at: null, begun: false }],
    } as unknown as Bench;
    const [stick] = asQueued(
      bench,
      queueOf({ kind: "cut", piece: 1 }, { kind: "fitted", piece: 1 }, { kind: "unfitted", piece: 1 }),
    ).sticks;
    expect(stick).toMatchObject({ cut_at: "2026-05-04T07:30:00.000Z", fitted_at: null, begun: true });
  });
});
