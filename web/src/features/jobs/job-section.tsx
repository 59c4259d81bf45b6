import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { usePutAside } from "@/api/about";
import { useShareJob } from "@/api/company";
import { useRemoveJob } from "@/api/job-queries";
import { useMe } from "@/api/queries";
import type { Job } from "@/api/types";
import type { JustBinned } from "@/features/bin/bin";
import { useBeginRun } from "@/shell/begin-run";
import { Button } from "@/ui/button";
import { Ask } from "@/ui/confirm";
import { MoreIcon, PlusIcon, RemoveIcon } from "@/ui/icons";
import { Menu, MenuItem } from "@/ui/menu";
import { Notice } from "@/ui/notice";
import { t } from "@/words/jobs";
import { BegunRow, useBegunRuns } from "./begun-runs";
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
  const begun = useBegunRuns().filter((run) => run.job_id === job.id);
  const shown = folded && !whole && runs.length > LONG ? runs.slice(0, AT_FIRST) : runs;
  return (
    <section aria-labelledby={`job-${job.id}`} className="rounded-lg border border-line bg-paper">
      <JobHead job={job} onBinned={onBinned} />
      <ul>
        {shown.map((run) => (
          <RunRow key={run.id} run={run} job={job} onBinned={onBinned} />
        ))}
        {shown.length < runs.length && (
          <li className="border-b border-line/60 px-3 py-2">
            <Button look="quiet" onClick={() => setWhole(true)}>
              {t("job.show_all", { runs: runs.length })}
            </Button>
          </li>
        )}
        {begun.map((run) => (
          <BegunRow key={run.id} run={run} />
        ))}
        {mayWrite && <NewRun job={job} />}
      </ul>
    </section>
  );
}

function JobHead({ job, onBinned }: Omit<Props, "folded">) {
  const me = useMe().data;
  const isOurs = job.crew_id === me?.crew_id;
  const mayWrite = me?.role !== "viewer" && isOurs;
  const leads = me?.role === "lead" && isOurs;
  const share = useShareJob();
  const removeJob = useRemoveJob(() => onBinned({ kind: "job", id: job.id, name: job.name }));
  const putAside = usePutAside();
  const navigate = useNavigate();
  const [asked, setAsked] = useState(false);
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 border-b border-line px-4 py-3">
      <JobName job={job} mayWrite={mayWrite} />
      {job.shared && (
        <span className="rounded-sm border border-line px-1.5 text-[15px] text-soft">
          {isOurs ? t("job.shared") : t("job.of_crew", { crew: job.crew })}
        </span>
      )}
      <span className="ml-auto flex flex-wrap gap-2">
        <Link
          to={`/jobs/${job.id}/space`}
          className="inline-flex min-h-11 items-center rounded-md border border-line px-3.5 font-medium hover:border-ink"
        >
          {t("job.whole")}
        </Link>
        <Link
          to={`/jobs/${job.id}/work`}
          className="inline-flex min-h-11 items-center rounded-md border border-line px-3.5 font-medium hover:border-ink"
        >
          {t("job.work")}
        </Link>
        <Link
          to={`/jobs/${job.id}/stock`}
          className="inline-flex min-h-11 items-center rounded-md border border-line px-3.5 font-medium hover:border-ink"
        >
          {t("job.stock")}
        </Link>
        <Menu
          align="end"
          trigger={
            <Button look="quiet" className="min-h-11 min-w-11" aria-label={t("job.more", { job: job.name })}>
              <MoreIcon />
            </Button>
          }
        >
          <MenuItem onSelect={() => navigate(`/jobs/${job.id}/cards`)}>{t("job.cards")}</MenuItem>
          <MenuItem onSelect={() => navigate(`/jobs/${job.id}/files`)}>{t("files")}</MenuItem>
          {mayWrite && (
            <MenuItem onSelect={() => navigate(`/import?job=${job.id}`)}>{t("job.import")}</MenuItem>
          )}
          {mayWrite && (
            <MenuItem
              disabled={putAside.isPending}
              onSelect={() => putAside.mutate({ id: job.id, aside: true })}
            >
              {t("job.archive")}
            </MenuItem>
          )}
          {leads && (me.company || job.shared) && (
            <MenuItem onSelect={() => share.mutate({ id: job.id, wanted: !job.shared })}>
              {job.shared ? t("job.unshare") : t("job.share")}
            </MenuItem>
          )}
          {leads && (
            <MenuItem onSelect={() => setAsked(true)}>
              <RemoveIcon /> {t("job.delete_short")}
            </MenuItem>
          )}
        </Menu>
      </span>
      {asked && (
        <Ask
          title={t("delete.ask", { name: job.name })}
          says={t("job.delete.says", { runs: job.runs.length })}
          act={t("job.delete")}
          onKeep={() => setAsked(false)}
          onAct={() => removeJob.mutate(job.id)}
        />
      )}
      {removeJob.error && <Notice severity="stop">{removeJob.error.message}</Notice>}
      {share.error && <Notice severity="stop">{share.error.message}</Notice>}
      {putAside.error && <Notice severity="stop">{putAside.error.message}</Notice>}
    </div>
  );
}

function NewRun({ job }: { job: Job }) {
  const { begin, isBusy, error } = useBeginRun(job);
  return (
    <li className="px-3 py-2">
      <Button look="quiet" className="min-h-11" onClick={begin} disabled={isBusy}>
        <PlusIcon /> {t("job.new_run")}
      </Button>
      {error && <Notice severity="stop">{error.message}</Notice>}
    </li>
  );
}
