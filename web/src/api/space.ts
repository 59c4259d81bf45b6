import { useMutation, useQuery } from "@tanstack/react-query";
import { api, reply } from "./client";
import { KEPT, keys, useRefreshing } from "./queries";
import type { EditsIn, Place, RunAmongOthers, RunDocument, TriedRemedy } from "./types";

const SPACE = (job: number) => ["space", job] as const;
const at = (job_id: number) => ({ params: { path: { job_id } } });
/** Others measure and lay out meanwhile: it is looked at again. */
const AGAIN = 10_000;

export const useSpace = (jobId: number) =>
  useQuery({
    queryKey: SPACE(jobId),
    queryFn: () => reply(api.GET("/api/jobs/{job_id}/space", at(jobId))),
    refetchInterval: AGAIN,
    ...KEPT,
  });

export const usePlaceBox = (jobId: number) =>
  useRefreshing(
    (body: { place: Place; was: number | null }) =>
      reply(api.POST("/api/jobs/{job_id}/boxes", { ...at(jobId), body })),
    [SPACE(jobId)],
  );

export const useUnplaceBox = (jobId: number) =>
  useRefreshing(
    ({ id, version }: { id: number; version: number }) =>
      reply(
        api.DELETE("/api/jobs/{job_id}/boxes/{box_id}/versions/{version}", {
          params: { path: { job_id: jobId, box_id: id, version } },
        }),
      ),
    [SPACE(jobId)],
  );

export const useSetDatum = (jobId: number) =>
  useRefreshing(
    (body: { datum: string; was: string }) =>
      reply(api.PUT("/api/jobs/{job_id}/datum", { ...at(jobId), body })),
    [SPACE(jobId)],
  );

/** What would do against a clash of two runs; asked for, as each is tried. */
export const useSpaceRemedies = (jobId: number) =>
  useMutation({
    mutationFn: (body: { one: number; other: number }): Promise<TriedRemedy[]> =>
      reply(api.POST("/api/jobs/{job_id}/space/remedies", { ...at(jobId), body })),
  });

/** Saves a run with what was tried on it; refused where somebody saved it since. */
export const useTakeRemedy = (jobId: number) =>
  useRefreshing(
    ({ run, version, edits }: TriedRemedy) =>
      reply(
        api.POST("/api/runs/{run_id}/edits", {
          params: { path: { run_id: Number(run) } },
          body: { version, edits: edits as EditsIn["edits"] },
        }),
      ),
    [SPACE(jobId), keys.jobs],
  );

/** What the job's space says of a run as it is being typed. */
export const askAmongOthers = (
  jobId: number,
  run_id: number,
  document: RunDocument,
): Promise<RunAmongOthers> =>
  reply(api.POST("/api/jobs/{job_id}/space/among", { ...at(jobId), body: { run_id, document } }));
