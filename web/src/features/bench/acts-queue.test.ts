import { describe, expect, it } from "vitest";
import type { Bench, StickAtBench } from "@/api/types";
import { arrangedOf, asAct, asQueued, type Doing, type Queue, waitingOn } from "./acts-queue";

const NOW = new Date("2026-05-04T07:30:00Z");
const bent = (bend: number, angle: number) =>
  ({ kind: "bent", piece: 1, bend, angle, again: false }) as const;

const queueOf = (...doings: Doing[]): Queue => doings.map((doing, at) => asAct(doing, `key ${at}`, NOW));

describe("acts at the bench while there is no network", () => {
  it("have each its own key and time", () => {
    expect(queueOf({ kind: "cut", piece: 1 }, bent(1, 30)).map((act) => [act.kind, act.key, act.at])).toEqual(
      [
        ["cut", "key 0", "2026-05-04T07:30:00.000Z"],
        ["bent", "key 1", "2026-05-04T07:30:00.000Z"],
      ],
    );
  });

  it("arrange a stick as last said here, each choice on top of those before", () => {
    const stick = {
      sheet: { piece: 1 },
      arranged: { hooks: "habit", marks: "exact" },
    } as unknown as StickAtBench;
    expect(arrangedOf(stick, [])).toEqual({ hooks: "habit", marks: "exact" });
    const arranged = { hooks: "one_way", marks: "exact" } as const;
    expect(arrangedOf(stick, queueOf({ kind: "arrange", piece: 1, arranged }))).toEqual(arranged);
  });

  it("show what was looked at when it was fitted, the one who looked first, and not what was taken back", () => {
    const first = { item: "plumb", by: "Dana", at: "2026-05-04T07:00:00Z" };
    const stick = { sheet: { piece: 1 }, fit_checked: [first] };
    const look = (kind: "checked" | "unchecked", item: "plumb" | "pencil") => ({ kind, piece: 1, item });
    const shown = (...doings: Doing[]) =>
      asQueued({ sticks: [stick] } as unknown as Bench, queueOf(...doings)).sticks[0]?.fit_checked;
    expect(shown(look("checked", "plumb"))).toEqual([first]);
    expect(shown(look("checked", "pencil"), look("unchecked", "plumb"))).toEqual([
      { item: "pencil", by: "", at: "2026-05-04T07:30:00.000Z" },
    ]);
  });

  it("show the readings that wait, the last of each bend, without what was taken back or scrapped", () => {
    const queue = queueOf(bent(1, 30), bent(2, 45), bent(1, 31), { kind: "unbent", piece: 1, bend: 2 });
    expect([...waitingOn(queue, 1)]).toEqual([[1, { angle: 31, tape: null, turned: 0 }]]);
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
