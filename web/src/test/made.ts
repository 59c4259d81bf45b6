import type {
  FloorStick,
  Plan,
  RackPlan,
  RunDocument,
  Sheet,
  SheetBend,
  ShoeUsed,
  StickAtBench,
} from "@/api/types";
import text from "./made.json?raw";

interface Made {
  document: RunDocument;
  note: { text: string; lines: Record<string, number> };
  plan: Plan;
  sheet: Sheet;
  /** The same after its first bend came out 4° short. */
  after: Sheet;
  /** A sweep of nine shots, two of them made a little over. */
  swept: Sheet;
  /** A run with four pipes beside it, its own plan, that of all of them, and how they lie on the floor. */
  racked: RunDocument;
  lead: Plan;
  rack: RackPlan;
  floor: FloorStick[];
}

/** What the core makes of a run of several steps (`./crelda generate`). */
export const made = JSON.parse(text) as Made;

export const shoe = made.plan.shoe as ShoeUsed;

/** The first bend that is made. */
export const first = made.sheet.bends[0] as SheetBend;

/** The stick at the bench, cut and with nothing bent. */
export const stickOf = (sheet: Sheet): StickAtBench => ({
  sheet,
  arranged: { order: null, hooks: "habit", marks: "exact", spare: null },
  shoe: { known: true, calibrated: true, differs: false, cautions: [], says: "", shoe_id: 1 } as never,
  used: shoe,
  begun: true,
  stale: "",
  card: "abc123",
  cut_at: "2026-03-02T08:00:00Z",
  cut_by: "Dana",
  fitted_at: null,
  fitted_by: "",
  fit_checked: [],
  made: [],
  kept: null,
});
