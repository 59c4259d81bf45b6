import { useEffect } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { isLooking, useCutting, usePlanCuts, useTakePlan } from "@/api/cutting";
import { useJob, useMe } from "@/api/queries";
import { useRack } from "@/api/stock-queries";
import type { Cutting } from "@/api/types";
import { useReach } from "@/api/use-reach";
import { jobTabs, runTabs } from "@/shell/pages";
import { Shell } from "@/shell/shell";
import { InSlices } from "@/ui/in-slices";
import { Notice } from "@/ui/notice";
import { TapeContext } from "@/ui/tape-field";
import { t } from "@/words/stock";
import { CuttingView } from "./cutting-view";
import { Looking } from "./looking";
import { OrderList } from "./order-list";
import { PlainCuts } from "./plain-cuts";
import { PlanView } from "./plan-view";
import { CutListPrint } from "./print";
import { RackPanel } from "./rack-panel";
import { TagPrinter } from "./tag-printer";

const USUAL_SECONDS = 2;

/** The job's pieces, what they are cut from, the cutting itself, what to bring, and the scrap rack. */
export function StockPage() {
  const jobId = Number(useParams().jobId);
  const runId = useSearchParams()[0].get("run");
  const job = useJob(jobId);
  const cutting = useCutting(jobId);
  const rack = useRack();
  const me = useMe();
  const mayWrite = me.data?.role !== "viewer";
  const tabs = runId ? runTabs(Number(runId), jobId) : jobTabs(jobId);
  const error = job.error ?? cutting.error ?? rack.error;
  return (
    <Shell
      title={t("page.title", { data: job.data?.name ?? t("page.job") })}
      trail={<strong className="text-ink">{job.data?.name}</strong>}
      tabs={tabs}
    >
      <main className="flex flex-1 flex-col lg:flex-row print:hidden">
        <div className="min-w-0 flex-1 px-5 py-4">
          <h1 className="text-2xl font-bold">{t("page.cut_list")}</h1>
          {error && <Notice severity="stop">{error.message}</Notice>}
          <PlainCuts jobId={jobId} cutting={cutting.data} />
          {cutting.data && <Cuts jobId={jobId} cutting={cutting.data} mayWrite={mayWrite} />}
        </div>
        <aside
          aria-label={t("rack.title")}
          className="border-line bg-paper max-lg:border-t lg:w-[26rem] lg:border-l"
        >
          {rack.data && (
            <TapeContext value={rack.data.tape}>
              <InSlices>
                <RackPanel
                  rack={rack.data}
                  used={cutting.data ? usedScraps(cutting.data) : new Set()}
                  mayWrite={mayWrite}
                  leads={me.data?.role === "lead"}
                />
              </InSlices>
            </TapeContext>
          )}
        </aside>
      </main>
      {cutting.data && (
        <InSlices>
          <CutListPrint job={job.data?.name ?? ""} cutting={cutting.data} />
        </InSlices>
      )}
    </Shell>
  );
}

function usedScraps(cutting: Cutting): Set<string> {
  const proposed = (cutting.proposal?.found.kinds ?? []).flatMap(
    (kind) =>
      kind.choices[
        cutting.proposal?.picks[`${kind.trade_size} ${kind.material}`] ?? kind.chosen
      ]?.sources.map((source) => source.scrap ?? "") ?? [],
  );
  return new Set(proposed.filter(Boolean));
}

function Cuts({ jobId, cutting, mayWrite }: { jobId: number; cutting: Cutting; mayWrite: boolean }) {
  const plan = usePlanCuts(jobId);
  // Kept here, as a plan that could not be taken gives way to a new one at once.
  const take = useTakePlan(jobId);
  const begun = cutting.taken.bars.length > 0;
  const reach = useReach();
  const wanted =
    mayWrite &&
    reach &&
    !cutting.proposal &&
    !cutting.solve &&
    !plan.isPending &&
    !plan.error &&
    (cutting.to_plan > 0 || !begun);
  const { mutate } = plan;
  const digest = cutting.proposal?.digest ?? "";
  // What is as it was has its plan already; after a change it is planned anew.
  useEffect(() => {
    if (wanted) mutate({ terms: { ...cutting.terms }, seconds: USUAL_SECONDS });
  }, [wanted, mutate, cutting.terms]);
  const replan = (terms: Record<string, unknown>, seconds = USUAL_SECONDS) => plan.mutate({ terms, seconds });
  return (
    <TapeContext value={cutting.tape}>
      {take.error && (
        <div className="mt-2">
          <Notice severity="stop">{take.error.message}</Notice>
        </div>
      )}
      {begun && <CuttingView jobId={jobId} cutting={cutting} mayWrite={mayWrite} />}
      <Looking
        jobId={jobId}
        cutting={cutting}
        mayWrite={mayWrite}
        onPlan={() => replan({ ...cutting.terms })}
      />
      {cutting.proposal && (cutting.to_plan > 0 || !begun) && (
        <PlanView
          jobId={jobId}
          cutting={cutting}
          proposal={cutting.proposal}
          planning={plan.isPending || take.isPending}
          looking={isLooking(cutting)}
          error={plan.error}
          onPlan={replan}
          onTake={(picks) => take.mutate({ digest, picks })}
          mayWrite={mayWrite}
        />
      )}
      {!mayWrite && !cutting.proposal && cutting.to_plan > 0 && (
        <Notice severity="note">{t("plan.not_planned")}</Notice>
      )}
      {plan.error && !cutting.proposal && <Notice severity="stop">{plan.error.message}</Notice>}
      {cutting.left_out.map((run) => (
        <div key={run.run + run.says} className="mt-2">
          <Notice severity="caution">
            <Link to={`/runs/${run.run}/layout`} className="font-semibold underline">
              {run.run_name || t("unlisted.a_run")}
            </Link>
            {run.whole ? t("unlisted.says") : ": "}
            {run.says}
          </Notice>
        </div>
      ))}
      {!begun && cutting.proposal?.found.kinds.length === 0 && (
        <p className="mt-4 text-lg text-soft">{t("plan.nothing")}</p>
      )}
      <OrderList jobId={jobId} lines={cutting.order} />
      <TagPrinter cutting={cutting} mayWrite={mayWrite} />
    </TapeContext>
  );
}
