import { answeredHere } from "./core/answered";
import type { KeptRun } from "./kept-runs";
import { isBegunHere } from "./own-numbers";
import type { Bench, BenchAct, Shoe, ShoeState, StickAtBench } from "./types";

/** The bench of a run as this device makes it: from what is kept of it, and what was done here since. */

/** A stick as the core tells it (conduit.answers). */
type StickTold = Pick<StickAtBench, "sheet" | "arranged" | "used" | "stale" | "card" | "kept"> & {
  shoe: string;
  cautions: string[];
};

interface BenchTold extends Pick<Bench, "material" | "trade_size" | "makeable" | "findings" | "own_limits"> {
  sticks: StickTold[];
  not_done: { key: string; says: string }[];
}

/** A shoe of the crew, as the lists have it. */
export type CrewShoe = Pick<
  Shoe,
  "id" | "name" | "called_before" | "material" | "trade_size" | "calibrated_at" | "figures"
>;

export interface BenchHere {
  bench: Bench;
  /** The acts that it counts; what waits besides is not in it. */
  counted: ReadonlySet<string>;
  /** What cannot be done of them, and why. */
  notDone: BenchTold["not_done"];
}

/** A bench at which nothing was done, of a run that is kept on this device. */
export const benchOfRun = (run: KeptRun): Bench => ({
  run_id: run.id,
  job_id: run.job_id,
  job_name: run.job_name,
  name: run.document.name ?? "",
  version: run.version,
  material: run.document.material ?? "EMT",
  trade_size: run.document.trade_size,
  status: "laid out",
  begun: [],
  makeable: false,
  findings: [],
  note: run.note,
  own_limits: false,
  sticks: [],
  carried: [],
  document: run.document,
});

/** Asks the core on this device for the bench. Rejects where it cannot say. */
export async function benchHere(
  base: Bench,
  acts: readonly BenchAct[],
  shoes: readonly CrewShoe[],
  by: string,
): Promise<BenchHere> {
  const run = isBegunHere(base.run_id) ? undefined : String(base.run_id);
  const given = {
    document: base.document,
    sticks: base.sticks.flatMap((stick) => (stick.kept ? [asKept(stick, base)] : [])),
    acts,
    shoes: shoes.map((shoe) => ({
      names: [shoe.name, ...shoe.called_before],
      material: shoe.material,
      trade_size: shoe.trade_size,
      calibrated: shoe.calibrated_at !== null,
      figures: shoe.figures,
    })),
  };
  const { sticks, not_done, ...more } = await answeredHere<BenchTold>("bench", given, run);
  return {
    bench: { ...base, ...more, sticks: sticks.map((told) => asStick(told, base, acts, shoes, by)) },
    counted: new Set(acts.map((act) => act.key)),
    notDone: not_done,
  };
}

/** What is kept of a stick; begun by the run as it is where the server says no other document. */
const asKept = ({ kept, begun }: StickAtBench, { document }: Bench) => ({
  ...kept,
  document: kept?.document ?? (begun ? document : null),
});

function asStick(
  told: StickTold,
  base: Bench,
  acts: readonly BenchAct[],
  shoes: readonly CrewShoe[],
  by: string,
): StickAtBench {
  const { shoe, cautions, ...stick } = told;
  const { piece } = stick.sheet;
  const before = base.sticks.find((one) => one.sheet.piece === piece);
  const made = (stick.kept?.made ?? []).flatMap(({ bend }) => {
    const act = acts.findLast((one) => one.kind === "bent" && one.piece === piece && one.bend === bend);
    const known = before?.made.find((one) => one.bend === bend);
    return act ? [{ bend, by, at: act.at }] : known ? [known] : [];
  });
  return {
    cut_at: before?.cut_at ?? null,
    cut_by: before?.cut_by ?? "",
    fitted_at: before?.fitted_at ?? null,
    fitted_by: before?.fitted_by ?? "",
    fit_checked: before?.fit_checked ?? [],
    begun: stick.kept?.document !== null && stick.kept?.document !== undefined,
    ...stick,
    made,
    shoe: before?.shoe.name === shoe ? { ...before.shoe, cautions } : shoeState(shoe, cautions, shoes),
  };
}

/** The shoe that a stick is bent on, as far as this device knows the crew's. */
function shoeState(name: string, cautions: string[], shoes: readonly CrewShoe[]): ShoeState {
  const own = shoes.find((one) => one.name === name);
  const isTested = own !== undefined && cautions.length === 0;
  return {
    id: own?.id ?? null,
    name,
    calibrated_at: isTested ? own.calibrated_at : null,
    cautions,
    figures: null,
  };
}
