import { useState } from "react";
import { Link, Outlet, useOutletContext, useParams } from "react-router";
import { useMe, usePlan, useRun } from "@/api/queries";
import type { Plan, Run } from "@/api/types";
import { Shell } from "@/app/shell";
import { Button } from "@/ui/button";
import { GoodIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import type { Saving } from "./draft";
import { type DraftHandle, useDraft } from "./use-draft";

export interface RunContext extends DraftHandle {
  plan: Plan | undefined;
  planError: string;
  mayWrite: boolean;
  /** The step chosen anywhere is chosen everywhere. */
  chosen: number | null;
  choose: (step: number | null) => void;
}

export const useRunContext = (): RunContext => useOutletContext<RunContext>();

export function RunPage() {
  const runId = Number(useParams().runId);
  const run = useRun(runId);
  if (run.error) {
    return (
      <Shell>
        <main className="p-8">
          <Notice severity="stop">
            This run cannot be opened: {run.error.message} <Link to="/">All jobs</Link>
          </Notice>
        </main>
      </Shell>
    );
  }
  return run.data ? <OpenRun key={run.data.id} run={run.data} /> : <Shell>{null}</Shell>;
}

function OpenRun({ run }: { run: Run }) {
  const handle = useDraft(run);
  const { draft, send } = handle;
  const plan = usePlan(draft.document);
  const me = useMe();
  const [chosen, choose] = useState<number | null>(null);
  const context: RunContext = {
    ...handle,
    plan: plan.data,
    planError: plan.error?.message ?? "",
    mayWrite: me.data?.role !== "viewer",
    chosen,
    choose,
  };
  return (
    <Shell
      trail={
        <>
          <span className="max-sm:hidden">{run.job_name} / </span>
          <strong className="text-ink">{draft.document.name || "Run without a name"}</strong>
        </>
      }
      tabs={[
        { to: `/runs/${run.id}/walk`, label: "Walk" },
        { to: `/runs/${run.id}/bench`, label: "Bench" },
        { to: `/jobs/${run.job_id}/stock?run=${run.id}`, label: "Stock" },
      ]}
      state={<SavingState saving={draft.saving} />}
    >
      {draft.saving === "stale" && draft.theirs && (
        <div className="flex flex-wrap items-center gap-3 border-b border-caution bg-paper px-4 py-2">
          <Notice severity="caution">
            <strong>{draft.theirs.saved_by} saved this run</strong> after you opened it. What you typed is
            still here and was not saved over it.
          </Notice>
          <span className="ml-auto flex gap-2">
            <Button onClick={() => send({ type: "take theirs" })}>Show theirs</Button>
            <Button look="main" onClick={() => send({ type: "keep mine" })}>
              Save mine as the newest
            </Button>
          </span>
        </div>
      )}
      {draft.saving === "refused" && (
        <div className="border-b border-stop bg-paper px-4 py-2">
          <Notice severity="stop">Not saved: {draft.refusal} What you typed is still here.</Notice>
        </div>
      )}
      <Outlet context={context} />
    </Shell>
  );
}

const STATES: Record<Saving, string> = {
  saved: "Saved",
  unsaved: "Saving …",
  saving: "Saving …",
  unreachable: "No server; kept here",
  stale: "Not saved",
  refused: "Not saved",
};

function SavingState({ saving }: { saving: Saving }) {
  return (
    <span role="status" aria-live="polite" className="flex items-center gap-1 text-[15px] text-soft">
      {saving === "saved" && <GoodIcon width={18} height={18} className="text-good" />}
      {STATES[saving]}
    </span>
  );
}
