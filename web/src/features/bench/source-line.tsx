import { Link } from "react-router";
import { useCutting } from "@/api/queries";
import { needsNoSaw, wholeOrRest } from "@/features/stock/saw";
import { useBenchContext } from "./bench-context";

/** What the stick is cut from, where a cut plan was taken for it. */
export function SourceLine() {
  const { bench, stick } = useBenchContext();
  const cutting = useCutting(bench.job_id);
  const bars = cutting.data?.taken.bars ?? [];
  const isOurs = (cut: { run: number; piece: number }) =>
    cut.run === bench.run_id && cut.piece === stick.sheet.piece;
  const bar = bars.find((one) => one.cuts.some(isOurs));
  const cut = bar?.cuts.find(isOurs);
  if (!bar || !cut || cut.stale) return null;
  return (
    <p className="tape mt-1 text-lg">
      From{" "}
      <Link to={`/jobs/${bench.job_id}/stock?run=${bench.run_id}`} className="font-bold underline">
        {bar.name}
      </Link>{" "}
      ({bar.length.reads} long, {bar.scrap ? bar.place || "on the rack" : "a new stick"}
      {bar.begin === "B" && ", tape hooked on its end B"}):{" "}
      {needsNoSaw(cut, bar) ? wholeOrRest(cut) : <strong>saw at {cut.end.reads}</strong>}.
    </p>
  );
}
