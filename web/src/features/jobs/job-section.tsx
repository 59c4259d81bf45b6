import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { usePutAside } from "@/api/about";
import { useAddRun, useMe, useRemoveJob, useShoes } from "@/api/queries";
import type { Job } from "@/api/types";
import type { JustBinned } from "@/features/bin/bin";
import { BEGUN } from "@/trade/begun";
import { lastPipe, newRun, readAs } from "@/trade/new-run";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { PlusIcon, RemoveIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { t } from "@/words/jobs";
import { JobName } from "./job-name";
import { inRackOrder } from "./rack-order";
import { RunRow } from "./run-row";

interface Props {
  job: Job;
  /** Of a long job only the first runs are shown at first; not where they are what was looked for. */
  folded: boolean;
  onBinned: (binned: JustBinned) => void;
}

/** More runs than that are folded, to so many. */
const LONG = 12;
const AT_FIRST = 8;

/** A job at work: its name, its runs, and a new one. */
export function JobSection({ job, folded, onBinned }: Props) {
  const mayWrite = useMe().data?.role !== "viewer";
  const [whole, setWhole] = useState(false);
  const runs = inRackOrder(job.runs);
  const shown = folded && !whole && runs.length > LONG ? runs.slice(0, AT_FIRST) : runs;
  return (
    <section aria-labelledby={`job-${job.id}`} className="rounded-lg border border-line bg-paper">
      <JobHead job={job} onBinned={onBinned} />
      <ul>
        {shown.map((run) => (
          <RunRow key={run.id} run={run} jobId={job.id} onBinned={onBinned} />
        ))}
        {shown.length < runs.length && (
          <li className="border-b border-line/60 px-3 py-2">
            <Button look="quiet" onClick={() => setWhole(true)}>
              {t("showAllRuns", { runs: runs.length })}
            </Button>
          </li>
        )}
        {mayWrite && <NewRun job={job} />}
      </ul>
    </section>
  );
}

function JobHead({ job, onBinned }: Omit<Props, "folded">) {
  const role = useMe().data?.role;
  const mayWrite = role !== "viewer";
  const removeJob = useRemoveJob();
  const putAside = usePutAside();
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 border-b border-line px-4 py-3">
      <JobName job={job} mayWrite={mayWrite} />
      <span className="ml-auto flex flex-wrap gap-2">
        {mayWrite && (
          <Button
            look="quiet"
            aria-label={t("putAside2", { job: job.name })}
            disabled={putAside.isPending}
            onClick={() => putAside.mutate({ id: job.id, aside: true })}
          >
            {t("putAside3")}
          </Button>
        )}
        <Link
          to={`/jobs/${job.id}/stock`}
          className="inline-flex min-h-9 items-center rounded-md border border-line px-3.5 font-medium hover:border-ink"
        >
          {t("stockAndCutList")}
        </Link>
        {role === "lead" && (
          <Confirm
            trigger={
              <Button look="quiet" aria-label={t("removeTheJob", { job: job.name })}>
                <RemoveIcon />
              </Button>
            }
            title={t("remove", { name: job.name })}
            says={t("itsRunsGoIntoThe", { runs: job.runs.length })}
            act={t("removeTheJob2")}
            onAct={() =>
              removeJob.mutate(job.id, {
                onSuccess: () => onBinned({ kind: "job", id: job.id, name: job.name }),
              })
            }
          />
        )}
      </span>
      {putAside.error && <Notice severity="stop">{putAside.error.message}</Notice>}
    </div>
  );
}

function NewRun({ job }: { job: Job }) {
  const me = useMe().data;
  const navigate = useNavigate();
  const addRun = useAddRun(job.id);
  const shoes = useShoes();
  const begin = () =>
    addRun.mutate(
      newRun(
        t("run", { runs: job.runs.length + 1 }),
        shoes.data ?? [],
        me ? readAs(me.new_runs) : undefined,
        lastPipe(job.runs),
      ),
      { onSuccess: (run) => navigate(`/runs/${run.id}/walk`, { state: BEGUN }) },
    );
  return (
    <li className="px-3 py-2">
      <Button look="quiet" onClick={begin} disabled={addRun.isPending || shoes.isPending}>
        <PlusIcon /> {t("measureANewRun")}
      </Button>
    </li>
  );
}
