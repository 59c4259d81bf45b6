import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, reply } from "./client";
import type { Plan, RunDocument, ScrapIn } from "./types";

export const keys = {
  me: ["me"] as const,
  jobs: ["jobs"] as const,
  job: (id: number) => ["jobs", id] as const,
  cuts: (id: number) => ["cuts", id] as const,
  run: (id: number) => ["run", id] as const,
  rack: ["rack"] as const,
  shoes: ["shoes"] as const,
};

export const useMe = () =>
  useQuery({
    queryKey: keys.me,
    queryFn: () => reply(api.GET("/api/session")),
    retry: false,
    staleTime: 60_000,
  });

export const useJobs = () => useQuery({ queryKey: keys.jobs, queryFn: () => reply(api.GET("/api/jobs")) });

export const useShoes = () => useQuery({ queryKey: keys.shoes, queryFn: () => reply(api.GET("/api/shoes")) });

export const useRack = () => useQuery({ queryKey: keys.rack, queryFn: () => reply(api.GET("/api/rack")) });

export const useJob = (id: number) =>
  useQuery({
    queryKey: keys.job(id),
    queryFn: () => reply(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: id } } })),
  });

export const useCutList = (id: number) =>
  useQuery({
    queryKey: keys.cuts(id),
    queryFn: () => reply(api.GET("/api/jobs/{job_id}/cut-list", { params: { path: { job_id: id } } })),
  });

/** The run as the server keeps it; read once when it is opened, as the draft then leads. */
export const useRun = (id: number) =>
  useQuery({
    queryKey: keys.run(id),
    queryFn: () => reply(api.GET("/api/runs/{run_id}", { params: { path: { run_id: id } } })),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });

/** The plan of a document as it is now; the last plan stays on the screen until the next is here. */
export const usePlan = (document: RunDocument) =>
  useQuery<Plan>({
    queryKey: ["plan", document],
    queryFn: async ({ signal }) =>
      (await reply(api.POST("/api/plan", { body: { document }, signal }))) as Plan,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 10_000,
  });

function useRefreshing<Given, Got>(
  act: (given: Given) => Promise<Got>,
  stale: readonly (readonly unknown[])[],
) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: () =>
      Promise.all(stale.map((queryKey) => queries.invalidateQueries({ queryKey: [...queryKey] }))),
  });
}

const RACK_AND_CUTS = [keys.rack, ["cuts"]] as const;

export const useAddScrap = () =>
  useRefreshing((body: ScrapIn) => reply(api.POST("/api/rack", { body })), RACK_AND_CUTS);

export const useTakeScrap = () =>
  useRefreshing(
    (id: number) => reply(api.POST("/api/rack/{scrap_id}/take", { params: { path: { scrap_id: id } } })),
    RACK_AND_CUTS,
  );

export const usePutBack = () =>
  useRefreshing(
    (id: number) => reply(api.POST("/api/rack/{scrap_id}/put-back", { params: { path: { scrap_id: id } } })),
    RACK_AND_CUTS,
  );

export const useAddJob = () =>
  useRefreshing(
    (body: { name: string; place: string }) => reply(api.POST("/api/jobs", { body })),
    [keys.jobs],
  );

export const useRemoveJob = () =>
  useRefreshing(
    (id: number) => reply(api.DELETE("/api/jobs/{job_id}", { params: { path: { job_id: id } } })),
    [keys.jobs],
  );

export const useAddRun = (jobId: number) =>
  useRefreshing(
    (document: RunDocument) =>
      reply(api.POST("/api/jobs/{job_id}/runs", { params: { path: { job_id: jobId } }, body: { document } })),
    [keys.jobs, ["cuts"]],
  );

export const useRemoveRun = () =>
  useRefreshing(
    (id: number) => reply(api.DELETE("/api/runs/{run_id}", { params: { path: { run_id: id } } })),
    [keys.jobs, ["cuts"]],
  );
