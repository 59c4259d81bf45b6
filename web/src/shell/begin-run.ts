import { useNavigate } from "react-router";
import { useAddRun, useMe, useShoes } from "@/api/queries";
import type { Job } from "@/api/types";
import { BEGUN } from "@/trade/begun";
import { lastPipe, newRun, readAs } from "@/trade/new-run";
import { t } from "@/words/shell";

/** Begins a new run of a job, with the crew's usual tape and the pipe that was measured last, and opens it. */
export function useBeginRun(job: Job) {
  const me = useMe().data;
  const navigate = useNavigate();
  const addRun = useAddRun(job.id);
  const shoes = useShoes();
  const begin = () =>
    addRun.mutate(
      newRun(
        t("runNumber", { number: job.runs.length + 1 }),
        shoes.data ?? [],
        me ? readAs(me.new_runs) : undefined,
        lastPipe(job.runs),
      ),
      { onSuccess: (run) => navigate(`/runs/${run.id}/layout`, { state: BEGUN }) },
    );
  return { begin, isBusy: addRun.isPending || shoes.isPending };
}
