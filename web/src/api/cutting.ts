import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { askAnew, takeAsNow } from "./after-writes";
import { ApiError, api, reply } from "./client";
import { newKey } from "./new-key";
import { KEPT, keys } from "./queries";
import type { Cutting } from "./types";
import { WriteKeys } from "./write-keys";

export const cuttingOf = (jobId: number) =>
  queryOptions({
    queryKey: keys.cuts(jobId),
    queryFn: () => reply(api.GET("/api/jobs/{job_id}/cutting", { params: { path: { job_id: jobId } } })),
    ...KEPT,
  });

export const useCutting = (jobId: number) =>
  useQuery({
    ...cuttingOf(jobId),
    // While a plan is made it is asked how far it is; the first good one is shown as soon as it is there.
    refetchInterval: (query) => (isLooking(query.state.data) ? BETWEEN_LOOKS : false),
  });

const BETWEEN_LOOKS = 500;

/** Whether a plan of the cuts waits to be made, or is being made. */
export const isLooking = (cutting: Cutting | undefined): boolean =>
  cutting?.solve?.state === "waiting" || cutting?.solve?.state === "running";

/** What changes a job's cutting: its answer is how the cutting then stands; the rack and the runs may follow. */
function useCuttingAct<Given>(jobId: number, act: (given: Given) => Promise<Cutting>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSuccess: (now) => takeAsNow(queries, keys.cuts(jobId), now),
    onError: () => askAnew(queries, [keys.cuts(jobId)]),
    onSettled: () => void askAnew(queries, [keys.rack, keys.jobs, ["bench"]]),
  });
}

const ofJob = (jobId: number) => ({ params: { path: { job_id: jobId } } });

const LONGEST_IN_LINE = 60_000;

/** Has a job's cuts planned; while the crew has as many plans made as it may it waits for its turn. */
export const usePlanCuts = (jobId: number) =>
  useCuttingAct(jobId, async (body: { terms: Record<string, unknown>; seconds: number }) => {
    const giveUp = Date.now() + LONGEST_IN_LINE;
    for (;;) {
      try {
        return await reply(api.POST("/api/jobs/{job_id}/cutting/plan", { ...ofJob(jobId), body }));
      } catch (error) {
        if (!(error instanceof ApiError && error.status === 429) || Date.now() > giveUp) throw error;
        await new Promise((resolve) => setTimeout(resolve, error.wait));
      }
    }
  });

/** Stops looking for a better plan; what was found stays. */
export const useStopPlanning = (jobId: number) =>
  useCuttingAct(jobId, () => reply(api.POST("/api/jobs/{job_id}/cutting/stop", ofJob(jobId))));

/** Takes the sticks and prices of this job for the crew's other jobs too. */
export const useKeepSold = (jobId: number) =>
  useCuttingAct(jobId, () => reply(api.POST("/api/jobs/{job_id}/cutting/sold", ofJob(jobId))));

export const useTakePlan = (jobId: number) =>
  useCuttingAct(jobId, (body: { digest: string; picks: Record<string, number> }) =>
    reply(api.POST("/api/jobs/{job_id}/cutting/take", { ...ofJob(jobId), body })),
  );

export const usePickChoices = (jobId: number) =>
  useCuttingAct(jobId, (body: { digest: string; picks: Record<string, number> }) =>
    reply(api.POST("/api/jobs/{job_id}/cutting/pick", { ...ofJob(jobId), body })),
  );

export const useLetGo = (jobId: number) =>
  useCuttingAct(jobId, () => reply(api.POST("/api/jobs/{job_id}/cutting/let-go", ofJob(jobId))));

const cutKeys = new WriteKeys(newKey);

export const useCutAct = (jobId: number) =>
  useCuttingAct(
    jobId,
    async ({ id, ...act }: { id: number; kind: "cut" | "undo" | "wrong" | "to_rack"; length: string }) => {
      const done = `${id} ${act.kind} ${act.length}`;
      const body = { ...act, key: cutKeys.keyOf(done, Date.now()) };
      try {
        const now = await reply(api.POST("/api/cuts/{cut_id}", { params: { path: { cut_id: id } }, body }));
        cutKeys.answered(done);
        return now;
      } catch (error) {
        // Where no answer came the same has the same key once more.
        if (error instanceof ApiError && error.status === 0) throw error;
        cutKeys.answered(done);
        throw error;
      }
    },
  );
