import type { BegunRun } from "./begun-here";
import { answeredHere } from "./core/answered";
import { keptRuns } from "./kept-runs";
import type { CutList, Cutting, Job, Scrap } from "./types";

/** A plain cut list of a job, made on this device from what is kept here: see conduit.answers.cuts. */
export async function plainCuts(
  job: Job,
  begun: readonly BegunRun[],
  rack: readonly Scrap[],
  cutting: Cutting | undefined,
): Promise<CutList> {
  const reserved = new Set(cutting?.taken.bars.flatMap((bar) => bar.cuts.map((cut) => cut.run)));
  const kept = await Promise.all(
    job.runs.filter((run) => isUncut(run) && !reserved.has(run.id)).map((run) => keptRuns.kept(run.id)),
  );
  const runs = [...kept, ...begun].flatMap((run) =>
    run ? [{ key: String(run.id), name: run.document.name ?? "", document: run.document }] : [],
  );
  const free = rack.filter((scrap) => scrap.reserved_job === null);
  const given = { runs, rack: free.map(asKept), terms: cutting?.terms ?? {} };
  return answeredHere<CutList>("cut-list", given, undefined);
}

/** Nothing of it is cut yet. */
const isUncut = ({ status, begun }: Job["runs"][number]): boolean =>
  (status === "measured" || status === "laid out") && begun.length === 0;

const asKept = ({ tag, material, trade_size, length, place, end_a, end_b }: Scrap) => ({
  tag,
  material,
  trade_size,
  length,
  place,
  ends: [end_a, end_b],
});
