import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, reply } from "./client";
import type { GivenMark, MarksJudged, PlannedOrder, RunDocument, ScrapIn, Way } from "./types";

export const keys = {
  me: ["me"] as const,
  jobs: ["jobs"] as const,
  job: (id: number) => ["jobs", id] as const,
  cuts: (id: number) => ["cuts", id] as const,
  run: (id: number) => ["run", id] as const,
  newest: (id: number) => ["newest", id] as const,
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

/** Which version of a run is the newest; asked every few seconds, so that another's save is told soon. */
export const useNewest = (id: number) =>
  useQuery({
    queryKey: keys.newest(id),
    queryFn: () => reply(api.GET("/api/runs/{run_id}/saved", { params: { path: { run_id: id } } })),
    refetchInterval: 4000,
    retry: false,
  });

/** The order of bending, for each piece of a document's run. */
export const useOrders = (document: RunDocument, wanted: boolean) =>
  useQuery({
    queryKey: ["orders", document],
    queryFn: () => reply(api.POST("/api/order", { body: { document } })) as Promise<PlannedOrder[]>,
    enabled: wanted,
    retry: false,
    gcTime: 60_000,
  });

export const useWays = (document: RunDocument, step: number) =>
  useQuery({
    queryKey: ["ways", document, step],
    queryFn: () => reply(api.POST("/api/ways", { body: { document, step } })) as Promise<Way[]>,
    placeholderData: keepPreviousData,
    gcTime: 10_000,
  });

export const useMarksJudged = (document: RunDocument, marks: GivenMark[] | null) =>
  useQuery({
    queryKey: ["marks", document, marks],
    queryFn: () =>
      reply(api.POST("/api/check-marks", { body: { document, marks: marks ?? [] } })) as Promise<MarksJudged>,
    enabled: marks !== null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 10_000,
  });

export const useRevisions = (id: number) =>
  useQuery({
    queryKey: ["revisions", id],
    queryFn: () => reply(api.GET("/api/runs/{run_id}/revisions", { params: { path: { run_id: id } } })),
    gcTime: 0,
  });

export const useRevision = (id: number, version: number | null) =>
  useQuery({
    queryKey: ["revisions", id, version],
    queryFn: () =>
      reply(
        api.GET("/api/runs/{run_id}/revisions/{version}", {
          params: { path: { run_id: id, version: version ?? 0 } },
        }),
      ),
    enabled: version !== null,
  });

export const useCompared = (mine: RunDocument, theirs: RunDocument | undefined) =>
  useQuery({
    queryKey: ["compare", mine, theirs],
    queryFn: () => reply(api.POST("/api/compare", { body: { mine, theirs: theirs ?? mine } })),
    enabled: theirs !== undefined,
    placeholderData: keepPreviousData,
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
