import { useState } from "react";
import { useNavigate } from "react-router";
import { beginHere } from "@/api/begun-here";
import { useAddRun } from "@/api/job-queries";
import { isBegunHere } from "@/api/own-numbers";
import { useMe, useShoes } from "@/api/queries";
import { useReach } from "@/api/use-reach";
import { BEGUN } from "@/trade/begun";
import { lastPipe, newRun, type PipeMeasured, readAs } from "@/trade/new-run";
import { t } from "@/words/shell";

/** A job as far as its next run depends on it; one of the server's, or one added on this device. */
export interface JobToMeasure {
  id: number;
  name: string;
  runs: readonly PipeMeasured[];
}

/** Begins a new run of a job, with the crew's usual tape and the pipe that was measured last, and opens it. */
export function useBeginRun(job: JobToMeasure) {
  const me = useMe().data;
  const navigate = useNavigate();
  const addRun = useAddRun(job.id);
  const shoes = useShoes();
  const isInReach = useReach();
  const [notKept, setNotKept] = useState<Error | null>(null);
  async function begin() {
    setNotKept(null);
    const all = shoes.data ?? (isInReach ? (await shoes.refetch()).data : undefined) ?? [];
    const name = t("jump.run_number", { number: job.runs.length + 1 });
    const document = newRun(name, all, me ? readAs(me.new_runs) : undefined, lastPipe(job.runs));
    // What it was begun from may be closed by then; a refusal is told where it stays.
    const run = await (isInReach && !isBegunHere(job.id)
      ? addRun.mutateAsync(document).catch(() => null)
      : beginHere(job, document, me?.name ?? "").catch((error: Error) => setNotKept(error)));
    if (run) navigate(`/runs/${run.id}/layout`, { state: BEGUN });
  }
  return { begin, isBusy: addRun.isPending, error: addRun.error ?? notKept };
}
