import { useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useSyncExternalStore } from "react";
import { Link } from "react-router";
import { askAnew } from "@/api/after-writes";
import { type BegunRun, begunRuns, putInJob } from "@/api/begun-here";
import type { Later } from "@/api/later";
import { keys } from "@/api/queries";
import type { Job } from "@/api/types";
import { useBeginRun } from "@/shell/begin-run";
import { ONLY_HERE, StateOf, useWaiting } from "@/shell/not-sent";
import { Button } from "@/ui/button";
import { PlusIcon } from "@/ui/icons";
import { Menu, MenuItem } from "@/ui/menu";
import { Notice } from "@/ui/notice";
import { t } from "@/words/jobs";

/** The runs that were begun on this device and are not with the server yet. */
export const useBegunRuns = () => useSyncExternalStore(begunRuns.subscribe, begunRuns.snapshot);

/** One of them in the list of a job. */
export function BegunRow({ run, children }: { run: BegunRun; children?: ReactNode }) {
  const { id, document, refused } = run;
  return (
    <li className="flex flex-wrap items-center border-b border-line/60 hover:bg-tint/50">
      <Link
        to={`/runs/${id}/layout`}
        className="flex min-h-14 flex-1 flex-wrap items-center gap-x-4 px-4 py-1.5"
      >
        <span className="min-w-0 text-lg font-semibold wrap-anywhere">
          {document.name || t("run.unnamed")}
        </span>
        <span className="tape text-soft">
          {document.trade_size} {document.material}
        </span>
        <span className="text-soft">{refused ? t("run.not_taken", { refusal: refused }) : ONLY_HERE}</span>
      </Link>
      {children}
    </li>
  );
}

/** A job that was added on this device and is not with the server yet, with the runs that were begun in it. */
export function JobHere({ job }: { job: Extract<Later, { kind: "job" }> }) {
  const runs = useBegunRuns().filter((run) => run.job_id === job.id);
  const { begin } = useBeginRun({ id: job.id, name: job.body.name, runs: runs.map(pipeOf) });
  return (
    <section aria-label={job.body.name} className="rounded-lg border border-dashed border-line bg-paper">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-line px-4 py-3">
        <h2 className="text-xl font-bold">{job.body.name}</h2>
        <span className="text-soft">{job.body.place}</span>
        <StateOf thing={job} />
      </div>
      <ul>
        {runs.map((run) => (
          <BegunRow key={run.id} run={run} />
        ))}
        <li className="px-3 py-2">
          <Button look="quiet" className="min-h-11" onClick={begin}>
            <PlusIcon /> {t("job.new_run")}
          </Button>
        </li>
      </ul>
    </section>
  );
}

const pipeOf = ({ document, saved_at }: BegunRun) => ({
  material: document.material ?? "EMT",
  trade_size: document.trade_size,
  saved_at,
});

/** Those whose job is gone, or was put aside, meanwhile: nothing of them is lost, and another job takes them. */
export function BegunWithoutJob({ atWork }: { atWork: readonly Job[] }) {
  const here = useWaiting("job");
  const runs = useBegunRuns().filter((run) => ![...atWork, ...here].some((job) => job.id === run.job_id));
  if (!runs.length) return null;
  return (
    <section aria-label={t("begun.title")} className="mt-6 rounded-lg border border-line bg-paper">
      <div className="px-4 py-2">
        <Notice severity="caution">{t("begun.no_job")}</Notice>
      </div>
      <ul>
        {runs.map((run) => (
          <BegunRow key={run.id} run={run}>
            {run.refused && <PutInJob run={run} jobs={atWork} />}
          </BegunRow>
        ))}
      </ul>
    </section>
  );
}

function PutInJob({ run, jobs }: { run: BegunRun; jobs: readonly Job[] }) {
  const queries = useQueryClient();
  const put = (job: Job) => putInJob(run.id, job).then(() => askAnew(queries, [keys.jobs]));
  return (
    <Menu
      align="end"
      trigger={
        <Button className="mx-3 my-1.5 min-h-11">
          {t("begun.put", { run: run.document.name || t("run.unnamed") })}
        </Button>
      }
    >
      {jobs.map((job) => (
        <MenuItem key={job.id} onSelect={() => put(job)}>
          {job.name}
        </MenuItem>
      ))}
    </Menu>
  );
}
