import { useState } from "react";
import { useNavigate } from "react-router";
import { useAssign } from "@/api/about";
import { useCopyRun, useRemoveRun } from "@/api/job-queries";
import { usePeople } from "@/api/people";
import { useJobs, useMe } from "@/api/queries";
import type { Job, Member } from "@/api/types";
import type { JustBinned } from "@/features/bin/bin";
import { Button } from "@/ui/button";
import { Ask } from "@/ui/confirm";
import { MoreIcon, RemoveIcon } from "@/ui/icons";
import { Menu, MenuItem } from "@/ui/menu";
import { Notice } from "@/ui/notice";
import { t } from "@/words/jobs";
import type { RunLine } from "./rack-order";
import { Series } from "./series";

interface Props {
  run: RunLine;
  job: Job;
  onBinned: (binned: JustBinned) => void;
}

interface ItemsProps extends Pick<Props, "run"> {
  people: Member[];
  jobs: Job[];
  make: (mirrored: boolean) => void;
  assign: (userId: number | null) => void;
  onAskJob: () => void;
  onAskCount: () => void;
  onFiles: () => void;
  /** Of whoever may delete it. */
  onDelete: (() => void) | undefined;
}

/** The menu's items, as they were when it was opened: one that comes later would move the others under the finger. */
function RunMenuItems({ make, assign, onAskJob, onAskCount, onFiles, onDelete, ...opened }: ItemsProps) {
  const [{ run, people, jobs }] = useState(opened);
  return (
    <>
      <MenuItem onSelect={() => make(false)}>{t("run.duplicate")}</MenuItem>
      <MenuItem onSelect={() => make(true)}>{t("run.mirror")}</MenuItem>
      <MenuItem onSelect={onAskCount}>{t("series.open")}</MenuItem>
      {people
        .filter((one) => one.role !== "viewer" && one.user_id !== run.assigned?.id)
        .map((one) => (
          <MenuItem key={one.id} onSelect={() => assign(one.id)}>
            {one.me ? t("run.assign_me") : t("run.assign", { name: one.name })}
          </MenuItem>
        ))}
      {run.assigned && <MenuItem onSelect={() => assign(null)}>{t("run.unassign")}</MenuItem>}
      <MenuItem onSelect={onFiles}>{t("files")}</MenuItem>
      {jobs.length > 1 && <MenuItem onSelect={onAskJob}>{t("run.copy")}</MenuItem>}
      {onDelete && (
        <MenuItem onSelect={onDelete}>
          <RemoveIcon /> {t("job.delete_short")}
        </MenuItem>
      )}
    </>
  );
}

/** The crew's other jobs, to put a copy into. */
function OtherJobs({ jobId, onChoose }: { jobId: number; onChoose: (jobId: number | null) => void }) {
  const jobs = useJobs().data ?? [];
  return (
    <span className="flex basis-full flex-wrap gap-2 px-4 pb-2">
      {jobs
        .filter((job) => job.id !== jobId)
        .map((job) => (
          <Button key={job.id} onClick={() => onChoose(job.id)}>
            {t("run.copy.into", { job: job.name })}
          </Button>
        ))}
      <Button look="quiet" onClick={() => onChoose(null)}>
        {t("run.copy.nowhere")}
      </Button>
    </span>
  );
}

const UNTOUCHED: RunLine["status"][] = ["measured", "laid out"];

/** Deletes a run that is only measured at once, as it comes back with one touch; asks where pipe was cut for it. */
function useDelete(run: RunLine, onBinned: Props["onBinned"]) {
  const removeRun = useRemoveRun(() => onBinned({ kind: "run", id: run.id, name: run.name }));
  const [isAsked, setAsked] = useState(false);
  const now = () => removeRun.mutate(run.id);
  const isWorkedOn = !UNTOUCHED.includes(run.status) || run.begun.length > 0;
  return {
    isAsked,
    error: removeRun.error,
    now,
    keep: () => setAsked(false),
    ask: () => (isWorkedOn ? setAsked(true) : now()),
  };
}

/** What can be made of a run: another like it, its mirror image, the same in another job; and for whom it is. */
export function RunMenu({ run, job, onBinned }: Props) {
  const me = useMe().data;
  const mayDelete = me?.role === "lead" && me.crew_id === job.crew_id && !run.rack_lead;
  const remove = useDelete(run, onBinned);
  const copy = useCopyRun();
  const assign = useAssign(run.id);
  const navigate = useNavigate();
  const people = usePeople().data?.members ?? [];
  const jobs = useJobs().data ?? [];
  const [asked, setAsked] = useState<"job" | "count" | null>(null);
  const make = (mirrored: boolean, job_id?: number) =>
    copy.mutate(
      { id: run.id, mirrored, ...(job_id === undefined ? {} : { job_id }) },
      { onSuccess: (made) => navigate(`/runs/${made.id}/layout`) },
    );
  return (
    <>
      <Menu
        align="end"
        trigger={
          <Button
            look="quiet"
            className="min-h-11 min-w-11"
            aria-label={t("run.more", { run: run.name || t("run.called") })}
            disabled={copy.isPending}
          >
            <MoreIcon />
          </Button>
        }
      >
        <RunMenuItems
          run={run}
          people={people}
          jobs={jobs}
          make={make}
          assign={(userId) => assign.mutate(userId)}
          onAskJob={() => setAsked("job")}
          onAskCount={() => setAsked("count")}
          onFiles={() => navigate(`/runs/${run.id}/files`)}
          onDelete={mayDelete ? remove.ask : undefined}
        />
      </Menu>
      {asked === "count" && <Series runId={run.id} onDone={() => setAsked(null)} />}
      {asked === "job" && (
        <OtherJobs jobId={job.id} onChoose={(into) => (into === null ? setAsked(null) : make(false, into))} />
      )}
      {remove.isAsked && (
        <Ask
          title={t("delete.ask", { name: run.name })}
          says={t("run.delete.says")}
          act={t("run.delete")}
          onKeep={remove.keep}
          onAct={remove.now}
        />
      )}
      {remove.error && <Notice severity="stop">{remove.error.message}</Notice>}
      {assign.error && <Notice severity="stop">{assign.error.message}</Notice>}
      {copy.error && <Notice severity="stop">{copy.error.message}</Notice>}
    </>
  );
}
