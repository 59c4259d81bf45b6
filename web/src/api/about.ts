import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { askAnew, takeAsNow } from "./after-writes";
import { api, reply } from "./client";
import { keys, useRefreshing } from "./queries";
import type { Run } from "./types";

type About = Pick<Run, "note" | "assigned" | "photos">;

const ABOUT = (runId: number) => ["about", runId] as const;
const at = (run_id: number) => ({ params: { path: { run_id } } });

/** A run's note, for whom it is, its photos; asked apart from the run, whose draft leads. */
export const useAbout = (runId: number) =>
  useQuery({
    queryKey: ABOUT(runId),
    queryFn: () => reply(api.GET("/api/runs/{run_id}", at(runId))) as Promise<About>,
  });

/** A change of it: what comes back is how it is now; what was refused is asked anew. */
function useChange<Given>(runId: number, act: (given: Given) => Promise<Run>) {
  const queries = useQueryClient();
  return useMutation<About, Error, Given>({
    mutationFn: act,
    onSuccess: (about) => takeAsNow(queries, ABOUT(runId), about),
    onError: () => askAnew(queries, [ABOUT(runId)]),
    onSettled: () => askAnew(queries, [keys.jobs]),
  });
}

export const useWriteRunNote = (runId: number) =>
  useChange(
    runId,
    (body: { note: string; was: string }) =>
      reply(api.PUT("/api/runs/{run_id}/note", { ...at(runId), body })) as Promise<Run>,
  );

export const useAssign = (runId: number) =>
  useChange(
    runId,
    (member_id: number | null) =>
      reply(api.PUT("/api/runs/{run_id}/assigned", { ...at(runId), body: { member_id } })) as Promise<Run>,
  );

export const useAddPhoto = (runId: number) =>
  useChange(
    runId,
    (body: { image: string; says: string }) =>
      reply(api.POST("/api/runs/{run_id}/photos", { ...at(runId), body })) as Promise<Run>,
  );

export const useRemovePhoto = (runId: number) =>
  useRefreshing(
    (photo_id: number) =>
      reply(
        api.DELETE("/api/runs/{run_id}/photos/{photo_id}", { params: { path: { run_id: runId, photo_id } } }),
      ),
    [ABOUT(runId), keys.jobs],
  );

export const usePutAside = () =>
  useRefreshing(
    ({ id, aside }: { id: number; aside: boolean }) =>
      reply(api.PUT("/api/jobs/{job_id}/aside", { params: { path: { job_id: id } }, body: { aside } })),
    [keys.jobs],
  );
