import { seenOf } from "./changes";
import { api, reply } from "./client";
import { keys, type OnGone, RACK_AND_CUTS, useAdding, useChanging, useRefreshing } from "./queries";
import type { Job, RunDocument } from "./types";

export const useAddJob = () => useAdding("job", [keys.jobs]);

export const useRenameJob = (job: Job) => useChanging("job change", job.id, seenOf.job(job), [keys.jobs]);

export const useCopyRun = () =>
  useRefreshing(
    ({ id, ...body }: { id: number; job_id?: number; mirrored: boolean }) =>
      reply(api.POST("/api/runs/{run_id}/copy", { params: { path: { run_id: id } }, body })),
    [keys.jobs, ["cuts"]],
  );

export const useMakeSeries = () =>
  useRefreshing(
    ({ id, ...body }: { id: number; count: number; own_boxes: boolean }) =>
      reply(api.POST("/api/runs/{run_id}/series", { params: { path: { run_id: id } }, body })),
    [keys.jobs, ["cuts"]],
  );

export const useRemoveJob = (onGone: OnGone) =>
  useRefreshing(
    (id: number) =>
      reply(api.DELETE("/api/jobs/{job_id}", { params: { path: { job_id: id } } })).then(onGone),
    [keys.jobs, keys.bin, ...RACK_AND_CUTS],
  );

export const useAddRun = (jobId: number) =>
  useRefreshing(
    (document: RunDocument) =>
      reply(api.POST("/api/jobs/{job_id}/runs", { params: { path: { job_id: jobId } }, body: { document } })),
    [keys.jobs, ["cuts"]],
  );

export const useRemoveRun = (onGone: OnGone) =>
  useRefreshing(
    (id: number) =>
      reply(api.DELETE("/api/runs/{run_id}", { params: { path: { run_id: id } } })).then(onGone),
    [keys.jobs, keys.bin, ...RACK_AND_CUTS],
  );
