import { useNavigate } from "react-router";
import { beginHere } from "@/api/begun-here";
import { useAddRun } from "@/api/job-queries";
import { useMe, useShoes } from "@/api/queries";
import type { Job } from "@/api/types";
import { useReach } from "@/api/use-reach";
import { BEGUN } from "@/trade/begun";
import { lastPipe, newRun, readAs } from "@/trade/new-run";
import { t } from "@/words/shell";

/** Begins a new run of a job, with the crew's usual tape and the pipe that was measured last, and opens it. */
export function useBeginRun(job: Job) {
  const me = useMe().data;
  const navigate = useNavigate();
  const addRun = useAddRun(job.id);
  const shoes = useShoes();
  const isInReach = useReach();
  async function begin() {
    const all = shoes.data ?? (isInReach ? (await shoes.refetch()).data : undefined) ?? [];
    const name = t("jump.run_number", { number: job.runs.length + 1 });
    const document = newRun(name, all, me ? readAs(me.new_runs) : undefined, lastPipe(job.runs));
    // What it was begun from may be closed by then; a refusal is told where it stays.
    const run = await (isInReach
      ? addRun.mutateAsync(document)
      : beginHere(job, document, me?.name ?? "")
    ).catch(() => null);
    if (run) navigate(`/runs/${run.id}/layout`, { state: BEGUN });
  }
  return { begin, isBusy: addRun.isPending, error: addRun.error };
}
