import type { SheetBend, StickAtBench } from "@/api/types";
import { t } from "@/words/bench";
import type { Waiting } from "./acts-queue";

/** What is on the screen: cutting and marking, one bend, or fitting. */
export type At = "cut" | "fit" | number;

export interface Judged {
  /** Nothing is to be done about it: it still fits, or is as near as hands get. */
  within: boolean;
  /** It is that near, and the rest makes up for it. */
  byHand: boolean;
  angle: string;
  off: string;
  tape: string;
  turned: string;
  /** It is entered here but not known to the server. */
  waiting: boolean;
}

/** How a bend came out: as the server tells it, or, while that waits, by the tolerance that it gave. */
export function judgedOf(bend: SheetBend, waiting: Waiting | undefined): Judged | null {
  if (waiting) {
    const off = waiting.angle - bend.angle;
    const inPlane = Math.abs(waiting.turned) <= bend.most_turned;
    const fits = inPlane && waiting.angle >= bend.least && waiting.angle <= bend.most;
    const byHand = !fits && inPlane && Math.abs(off) <= bend.by_hand + 1e-9;
    return {
      within: fits || byHand,
      byHand,
      angle: `${waiting.angle.toFixed(1)}°`,
      off: `${off < 0 ? "−" : "+"}${Math.abs(off).toFixed(1)}°`,
      tape: waiting.tape === null ? "" : String(waiting.tape),
      turned: waiting.turned ? `${Math.abs(waiting.turned)}°` : "",
      waiting: true,
    };
  }
  const { made } = bend;
  if (!made) return null;
  return {
    within: made.within,
    byHand: made.within && made.advice !== "go_on",
    angle: made.angle_reads,
    off: made.off_reads,
    turned: made.turned_reads,
    tape: made.tape ? `${made.tape.reads}${taped(made.tape_off?.reads)}` : "",
    waiting: false,
  };
}

function taped(off: string | undefined): string {
  if (!off || off === "0") return "";
  return off.startsWith("-") ? t("off.short", { off: off.slice(1) }) : t("off.long", { off });
}

/** Where work on a stick goes on: cut it, else its first bend not made, else fit it. */
export function goesOnAt(stick: StickAtBench, waiting: Map<number, Waiting>): At {
  if (!stick.cut_at && stick.made.length === 0 && waiting.size === 0) return "cut";
  return stick.sheet.bends.find((bend) => !judgedOf(bend, waiting.get(bend.number)))?.number ?? "fit";
}

/** What the shots of a sweep before one add up to: as read, also where that still waits to be sent, or as planned. */
export const sumBefore = (shots: SheetBend[], bend: SheetBend, waiting: Map<number, Waiting>): number =>
  shots
    .filter((one) => (one.sweep?.shot ?? 0) < (bend.sweep?.shot ?? 0))
    .reduce((sum, one) => sum + (waiting.get(one.number)?.angle ?? one.made?.angle ?? one.angle), 0);

/** The shot of a sweep that is to be looked at: the one on the screen, else the next to be made, else its last. */
export function shotOf(bends: SheetBend[], at: At): SheetBend | undefined {
  return bends.find((bend) => bend.number === at) ?? bends.find((bend) => !bend.made) ?? bends.at(-1);
}

/** The screens of a stick in turn; all shots of a sweep have one. */
export function screensOf(stick: StickAtBench, at: At): At[] {
  const screens: At[] = ["cut"];
  for (const bend of stick.sheet.bends) {
    if (!bend.sweep) screens.push(bend.number);
    else if (bend.begins_act) screens.push(shotOf(shotsOf(stick, bend), at)?.number ?? bend.number);
  }
  return [...screens, "fit"];
}

/** All shots of the sweep that a bend is one of, in the order in which they are made. */
export const shotsOf = (stick: StickAtBench, bend: SheetBend): SheetBend[] =>
  stick.sheet.bends.filter((one) => one.act === bend.act);

/** Reads degrees as a person writes them; null where they are none. */
export function degreesOf(text: string): number | null {
  const plain = text.trim().replace("°", "").replace(",", ".");
  const mixed = /^(\d+)(?:\s+(\d+)\/(\d+))?$/.exec(plain);
  const value = mixed
    ? Number(mixed[1]) + (mixed[2] ? Number(mixed[2]) / Number(mixed[3]) : 0)
    : plain === ""
      ? Number.NaN
      : Number(plain);
  return Number.isFinite(value) && value > 0 && value < 180 ? value : null;
}
