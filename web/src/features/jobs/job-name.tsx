import { type FormEvent, useState } from "react";
import { ApiError } from "@/api/client";
import { useRenameJob } from "@/api/job-queries";
import type { Job } from "@/api/types";
import { StateOf, useWaiting } from "@/shell/not-sent";
import { Button } from "@/ui/button";
import { t } from "@/words/jobs";
import { JobFields, type JobWritten, trimmed } from "./job-fields";

/** A job's name and place, which can be changed where they stand. */
export function JobName({ job, mayWrite }: { job: Job; mayWrite: boolean }) {
  const [open, setOpen] = useState(false);
  const changed = useWaiting("job change").filter((one) => one.target === job.id);
  if (open) return <Renaming job={job} onDone={() => setOpen(false)} />;
  return (
    <>
      <h2 id={`job-${job.id}`} className="text-xl font-bold">
        {job.name}
      </h2>
      <span className="text-soft">{job.place}</span>
      {changed.map((one) => (
        <span key={one.id} className="flex flex-wrap items-center gap-x-2">
          {[one.body.name, one.body.place].filter(Boolean).join(", ")} <StateOf thing={one} />
        </span>
      ))}
      {mayWrite && (
        <Button
          look="quiet"
          aria-label={t("job.rename.label", { job: job.name })}
          onClick={() => setOpen(true)}
        >
          {t("job.rename")}
        </Button>
      )}
    </>
  );
}

function Renaming({ job, onDone }: { job: Job; onDone: () => void }) {
  const rename = useRenameJob(job);
  const [written, setWritten] = useState<JobWritten>({ name: job.name, place: job.place });
  const error = rename.error instanceof ApiError ? rename.error : null;

  function submit(event: FormEvent) {
    event.preventDefault();
    rename.mutate(trimmed(written), { onSuccess: onDone });
  }

  return (
    <form onSubmit={submit} className="flex flex-wrap items-end gap-3">
      <h2 id={`job-${job.id}`} className="sr-only">
        {job.name}
      </h2>
      <JobFields labels={[t("job.name"), t("job.place")]} job={written} onChange={setWritten} error={error} />
      <Button
        type="submit"
        look="main"
        className="min-h-11"
        disabled={!written.name.trim() || rename.isPending}
      >
        {t("job.rename.keep")}
      </Button>
      <Button look="quiet" className="min-h-11" onClick={onDone}>
        {t("job.rename.cancel")}
      </Button>
    </form>
  );
}
