import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { ApiError } from "@/api/client";
import { useAddJob, useAddRun, useJobs, useMe, useRemoveJob, useRemoveRun, useShoes } from "@/api/queries";
import type { Job } from "@/api/types";
import { StatusMark } from "@/draw/status-mark";
import { Bin, type JustBinned, Undo } from "@/features/bin/bin";
import { Shell } from "@/layout/shell";
import { BEGUN } from "@/trade/begun";
import { lastPipe, newRun, readAs } from "@/trade/new-run";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { Field } from "@/ui/field";
import { PlusIcon, RemoveIcon } from "@/ui/icons";
import { timeOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { JobFields, type JobWritten, trimmed } from "./job-fields";
import { JobName } from "./job-name";
import { matching } from "./matching";
import { inRackOrder } from "./rack-order";
import { RunMenu } from "./run-menu";

export function JobsPage() {
  const jobs = useJobs();
  const me = useMe();
  const mayWrite = me.data?.role !== "viewer";
  const [binned, setBinned] = useState<JustBinned | null>(null);
  const [sought, setSought] = useState("");
  const shown = matching(jobs.data ?? [], sought);
  const isLong = (jobs.data ?? []).reduce((sum, job) => sum + job.runs.length, 0) > WORTH_SEARCHING;
  return (
    <Shell title="Jobs">
      <main className="mx-auto w-full max-w-5xl px-4 py-8">
        <h1 className="text-3xl font-bold">Jobs</h1>
        <p className="mt-1 text-soft">{me.data?.crew}</p>
        {jobs.error && <Notice severity="stop">{jobs.error.message}</Notice>}
        {binned && (
          <Undo key={`${binned.kind} ${binned.id}`} binned={binned} onDone={() => setBinned(null)} />
        )}
        {(isLong || sought) && (
          <Field
            label="Find a job or a run"
            type="search"
            className="mt-4 max-w-96"
            value={sought}
            onChange={(event) => setSought(event.target.value)}
          />
        )}
        {sought && !shown.length && <p className="mt-4 text-lg">Nothing is called so.</p>}
        <div className="mt-6 flex flex-col gap-8">
          {shown.map((job) => (
            <JobSection key={job.id} job={job} onBinned={setBinned} />
          ))}
          {jobs.data?.length === 0 && <p className="text-lg">No jobs yet. Open the first one below.</p>}
        </div>
        {mayWrite && <NewJob />}
        <Bin kinds={["job", "run"]} />
      </main>
    </Shell>
  );
}

const WORTH_SEARCHING = 3;

function JobSection({ job, onBinned }: { job: Job; onBinned: (binned: JustBinned) => void }) {
  const me = useMe().data;
  const role = me?.role;
  const mayWrite = role !== "viewer";
  const mayDelete = role === "lead";
  const navigate = useNavigate();
  const addRun = useAddRun(job.id);
  const shoes = useShoes();
  const removeJob = useRemoveJob();
  const removeRun = useRemoveRun();

  function begin() {
    addRun.mutate(
      newRun(
        `Run ${job.runs.length + 1}`,
        shoes.data ?? [],
        me ? readAs(me.new_runs) : undefined,
        lastPipe(job.runs),
      ),
      {
        onSuccess: (run) => navigate(`/runs/${run.id}/walk`, { state: BEGUN }),
      },
    );
  }

  return (
    <section aria-labelledby={`job-${job.id}`} className="rounded-lg border border-line bg-paper">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 border-b border-line px-4 py-3">
        <JobName job={job} mayWrite={mayWrite} />
        <span className="ml-auto flex gap-2">
          <Link
            to={`/jobs/${job.id}/stock`}
            className="inline-flex min-h-9 items-center rounded-md border border-line px-3.5 font-medium hover:border-ink"
          >
            Stock and cut list
          </Link>
          {mayDelete && (
            <Confirm
              trigger={
                <Button look="quiet" aria-label={`Remove the job ${job.name}`}>
                  <RemoveIcon />
                </Button>
              }
              title={`Remove “${job.name}”?`}
              says={`Its ${job.runs.length} runs go into the bin with it, for the whole crew. What is reserved for it is let go; the log stays.`}
              act="Remove the job"
              onAct={() =>
                removeJob.mutate(job.id, {
                  onSuccess: () => onBinned({ kind: "job", id: job.id, name: job.name }),
                })
              }
            />
          )}
        </span>
      </div>
      <ul>
        {inRackOrder(job.runs).map((run) => (
          <li
            key={run.id}
            className={`flex flex-wrap items-center gap-2 border-b border-line/60 hover:bg-tint/50 ${mayDelete && run.rack_lead ? "pr-14" : "pr-2"}`}
          >
            <Link
              to={`/runs/${run.id}/walk`}
              className={`flex min-h-14 min-w-0 flex-1 flex-wrap items-center gap-x-4 px-4 ${run.rack_lead ? "pl-10" : ""}`}
            >
              {run.rack_number && (
                <span
                  className="tape inline-flex h-7 w-7 items-center justify-center rounded-full border-2 border-soft text-[15px] font-bold"
                  title={`Pipe ${run.rack_number} of the rack of the run above`}
                >
                  {run.rack_number}
                </span>
              )}
              <span className="text-lg font-semibold">{run.name || "Run without a name"}</span>
              <span className="tape text-soft">
                {run.trade_size} {run.material}
              </span>
              <StatusMark status={run.status} progress={run.progress} />
              <span className="w-60 whitespace-nowrap text-right text-[15px] text-soft max-md:hidden">
                saved {timeOf(run.saved_at)}
              </span>
            </Link>
            {mayWrite && <RunMenu run={run} jobId={job.id} />}
            {mayDelete && !run.rack_lead && (
              <Confirm
                trigger={
                  <Button look="quiet" aria-label={`Remove the run ${run.name}`}>
                    <RemoveIcon />
                  </Button>
                }
                title={`Remove “${run.name}”?`}
                says="It goes into the bin with the pipes of its rack if it has one, for the whole crew. What is reserved for it is let go; the log stays."
                act="Remove the run"
                onAct={() =>
                  removeRun.mutate(run.id, {
                    onSuccess: () => onBinned({ kind: "run", id: run.id, name: run.name }),
                  })
                }
              />
            )}
          </li>
        ))}
        {mayWrite && (
          <li className="px-3 py-2">
            <Button look="quiet" onClick={begin} disabled={addRun.isPending || shoes.isPending}>
              <PlusIcon /> Measure a new run
            </Button>
          </li>
        )}
      </ul>
    </section>
  );
}

const NO_JOB: JobWritten = { name: "", place: "" };

function NewJob() {
  const add = useAddJob();
  const [written, setWritten] = useState(NO_JOB);
  const error = add.error instanceof ApiError ? add.error : null;

  function submit(event: FormEvent) {
    event.preventDefault();
    add.mutate(trimmed(written), { onSuccess: () => setWritten(NO_JOB) });
  }

  return (
    <form onSubmit={submit} className="mt-10 flex flex-wrap items-end gap-3">
      <JobFields labels={["New job", "Where"]} job={written} onChange={setWritten} error={error} />
      <Button type="submit" disabled={!written.name.trim() || add.isPending} className="min-h-10">
        <PlusIcon /> Open the job
      </Button>
    </form>
  );
}
