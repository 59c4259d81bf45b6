import { useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useSyncExternalStore } from "react";
import { Link } from "react-router";
import { askAnew } from "@/api/after-writes";
import { type BegunRun, begunRuns, putInJob } from "@/api/begun-here";
import { keys } from "@/api/queries";
import type { Job } from "@/api/types";
import { Button } from "@/ui/button";
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
        <span className="text-soft">
          {refused ? t("run.not_taken", { refusal: refused }) : t("run.only_here")}
        </span>
      </Link>
      {children}
    </li>
  );
}

/** Those whose job is gone, or was put aside, meanwhile: nothing of them is lost, and another job takes them. */
export function BegunWithoutJob({ atWork }: { atWork: readonly Job[] }) {
  const runs = useBegunRuns().filter((run) => !atWork.some((job) => job.id === run.job_id));
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
