import { useQuery } from "@tanstack/react-query";
import { api, reply } from "./client";
import { KEPT, keys, useRefreshing } from "./queries";
import type { LabourFigures, ScheduleIn } from "./types";

const TAKES = ["takes"] as const;
const FIGURES = ["labour figures"] as const;

/** What a job takes, and how far each of its runs is. */
export const useTakes = (jobId: number) =>
  useQuery({
    queryKey: [...TAKES, jobId],
    queryFn: () => reply(api.GET("/api/jobs/{job_id}/takes", { params: { path: { job_id: jobId } } })),
    ...KEPT,
  });

/** What several jobs take together. */
export const useTakeTogether = (job: readonly number[]) =>
  useQuery({
    queryKey: [...TAKES, "together", ...job],
    queryFn: () => reply(api.GET("/api/estimate", { params: { query: { job: [...job] } } })),
    enabled: job.length > 0,
  });

export const useLabour = () =>
  useQuery({ queryKey: FIGURES, queryFn: () => reply(api.GET("/api/estimate/figures")), ...KEPT });

export const useSetLabour = () =>
  useRefreshing((body: LabourFigures) => reply(api.PUT("/api/estimate/figures", { body })), [FIGURES, TAKES]);

export const useSetPrices = () =>
  useRefreshing(
    (text: string) => reply(api.PUT("/api/estimate/prices", { body: { text } })),
    [FIGURES, TAKES],
  );

export const useSchedule = (jobId: number) =>
  useRefreshing(
    (body: ScheduleIn) =>
      reply(api.PUT("/api/jobs/{job_id}/schedule", { params: { path: { job_id: jobId } }, body })),
    [TAKES, keys.jobs],
  );
