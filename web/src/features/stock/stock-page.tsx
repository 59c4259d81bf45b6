import { Link, useParams, useSearchParams } from "react-router";
import { useCutList, useJob, useMe, useRack } from "@/api/queries";
import type { CutList } from "@/api/types";
import { runTabs, Shell } from "@/app/shell";
import { Notice } from "@/ui/notice";
import { CutBar } from "./cut-bar";
import { RackPanel } from "./rack-panel";

/** The job's pieces, what they are cut from, and the scrap rack. */
export function StockPage() {
  const jobId = Number(useParams().jobId);
  const runId = useSearchParams()[0].get("run");
  const job = useJob(jobId);
  const cuts = useCutList(jobId);
  const rack = useRack();
  const me = useMe();
  const tabs = runId
    ? runTabs(Number(runId), jobId)
    : [
        { to: "/", label: "Jobs" },
        { to: `/jobs/${jobId}/stock`, label: "Stock" },
      ];
  const error = job.error ?? cuts.error ?? rack.error;
  return (
    <Shell trail={<strong className="text-ink">{job.data?.name}</strong>} tabs={tabs}>
      <main className="flex flex-1 flex-col lg:flex-row">
        <div className="min-w-0 flex-1 px-5 py-4">
          <h1 className="text-2xl font-bold">Cut list</h1>
          {error && <Notice severity="stop">{error.message}</Notice>}
          {cuts.data && <CutListView cuts={cuts.data} />}
        </div>
        <aside
          aria-label="Scrap rack"
          className="border-line bg-paper max-lg:border-t lg:w-[25rem] lg:border-l"
        >
          {rack.data && <RackPanel rack={rack.data} cuts={cuts.data} mayWrite={me.data?.role !== "viewer"} />}
        </aside>
      </main>
    </Shell>
  );
}

function CutListView({ cuts }: { cuts: CutList }) {
  const longest = Math.max(1, ...cuts.sources.map((source) => source.length.inches));
  const scraps = cuts.sources.filter((source) => source.scrap);
  const sticks = cuts.sources.filter((source) => !source.scrap);
  return (
    <>
      <p className="tape mt-1 text-lg">
        {cuts.to_buy.length ? (
          <>
            Bring{" "}
            {cuts.to_buy.map((buy, i) => (
              <span key={buy.material + buy.trade_size}>
                {i > 0 && ", "}
                <strong>
                  {buy.sticks} new {buy.sticks === 1 ? "stick" : "sticks"}
                </strong>{" "}
                of {buy.trade_size} {buy.material}
              </span>
            ))}
            .
          </>
        ) : (
          "No new sticks needed."
        )}{" "}
        <span className="text-soft">
          {cuts.couplings} {cuts.couplings === 1 ? "coupling" : "couplings"}. Each cut takes {cuts.kerf.reads}
          .
        </span>
      </p>
      <p className="text-[15px] text-soft">
        A simple assignment: longest piece first, scrap before new sticks. It is not proved to use the fewest
        sticks.
      </p>
      {cuts.left_out.map((run) => (
        <div key={run.run} className="mt-2">
          <Notice severity="caution">
            <Link to={`/runs/${run.run}/walk`} className="font-semibold underline">
              {run.run_name || "A run"}
            </Link>{" "}
            is not in the list. {run.says}
          </Notice>
        </div>
      ))}
      {scraps.length > 0 && <h2 className="mt-4 text-lg font-bold">From the rack</h2>}
      {scraps.map((source) => (
        <CutBar key={source.scrap} source={source} longest={longest} name={source.scrap ?? ""} />
      ))}
      {sticks.length > 0 && <h2 className="mt-4 text-lg font-bold">From new sticks</h2>}
      {sticks.map((source, i) => (
        <CutBar
          key={source.cuts.map((cut) => `${cut.run}.${cut.piece}`).join()}
          source={source}
          longest={longest}
          name={`Stick ${i + 1}`}
        />
      ))}
      {cuts.sources.length === 0 && (
        <p className="mt-4 text-lg text-soft">Nothing to cut yet. Measure a run first.</p>
      )}
    </>
  );
}
