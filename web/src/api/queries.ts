import {
  keepPreviousData,
  queryOptions,
  useMutation,
  useQueries,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { askAnew } from "./after-writes";
import { begunHere } from "./begun-here";
import type { Change } from "./changes";
import { api, openRun, reply } from "./client";
import { keptBenches, keptFloors, keptRuns } from "./kept-runs";
import { nowOrLater, type Thing } from "./later";
import { isBegunHere } from "./own-numbers";
import { dropOthers, ownerOf } from "./owner";
import type { Bench, Job, Me, Shoe } from "./types";

const TWO_WEEKS = 14 * 24 * 60 * 60 * 1000;
/** What a query must have so that its answer is kept in this browser, for when there is no network. */
export const KEPT = { meta: { kept: true }, gcTime: TWO_WEEKS };

export interface LogWanted {
  run?: number;
  person?: number;
  shoe?: string;
}

export const keys = {
  bench: (id: number) => ["bench", id] as const,
  floor: (id: number) => ["floor", id] as const,
  log: ["log"] as const,
  learned: (id: number) => ["learned", id] as const,
  me: ["me"] as const,
  jobs: ["jobs"] as const,
  job: (id: number) => ["jobs", id] as const,
  cuts: (id: number) => ["cuts", id] as const,
  run: (id: number) => ["run", id] as const,
  newest: (id: number) => ["newest", id] as const,
  underChange: (id: number) => ["under change", id] as const,
  rack: ["rack"] as const,
  bin: ["bin"] as const,
  shoes: ["shoes"] as const,
  limits: ["limits"] as const,
};

const PATIENCE = 5000;

const ME = queryOptions({
  queryKey: keys.me,
  queryFn: async ({ client }): Promise<Me | null> => {
    const asked = reply(api.GET("/api/session", { signal: AbortSignal.timeout(PATIENCE) }));
    const me: Me | undefined = await asked;
    if (me) await dropOthers(client, ownerOf(me));
    return me ?? null;
  },
  retry: false,
  staleTime: 60_000,
  ...KEPT,
});

/** Who is signed in; null: nobody. Without an answer in good time it is who was signed in last. */
export const useMe = () => useQuery(ME);

/** The same, asked when the program is opened, whoever was there a moment ago. */
export const useMeAtFirst = () => useQuery({ ...ME, refetchOnMount: "always" });

/** Whose what is kept in this browser is, on pages behind the sign-in. */
export const useOwner = (): string => {
  const me = useMe();
  if (!me.data) throw new Error("nobody is signed in");
  return ownerOf(me.data);
};

export const useJobs = () =>
  useQuery({ queryKey: keys.jobs, queryFn: () => reply(api.GET("/api/jobs")), ...KEPT });

/** The shoes to bend on: the crew's, with those of the crew whose run it is. */
export const shoesOf = (run: string | undefined) =>
  queryOptions({
    queryKey: run ? [...keys.shoes, run] : keys.shoes,
    queryFn: () => reply(api.GET("/api/shoes")),
    ...KEPT,
  });

/** The shoes to bend on; on a run's page those of the crew whose run it is too, once they are asked for. */
export const useShoes = () => {
  const queries = useQueryClient();
  const crews = () => queries.getQueryData<Shoe[]>(keys.shoes);
  return useQuery({ ...shoesOf(openRun()), placeholderData: crews });
};

export const useLimits = () =>
  useQuery({ queryKey: keys.limits, queryFn: () => reply(api.GET("/api/limits")) });

export const useJob = (id: number) => {
  const queries = useQueryClient();
  return useQuery({
    // What the list of jobs has of it, until it is asked for itself.
    placeholderData: () => queries.getQueryData<Job[]>(keys.jobs)?.find((job) => job.id === id),
    queryKey: keys.job(id),
    queryFn: () => reply(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: id } } })),
  });
};

/** A run as it was saved. What is kept of it from another view may be older: a draft waits for `isFetchedAfterMount`. */
export const useRun = (id: number, enabled = true) =>
  useQuery({
    queryKey: keys.run(id),
    enabled,
    queryFn: () => (isBegunHere(id) ? begunHere(id) : keptRuns.either(id)),
    // Without a network it may be on this device.
    networkMode: "always",
    refetchOnReconnect: true,
    staleTime: Number.POSITIVE_INFINITY,
    refetchOnMount: "always",
    gcTime: 0,
  });

/** Which version of a run is the newest; asked every few seconds, so that another's save is told soon. */
export const useNewest = (id: number) =>
  useQuery({
    queryKey: keys.newest(id),
    queryFn: () => reply(api.GET("/api/runs/{run_id}/saved", { params: { path: { run_id: id } } })),
    enabled: !isBegunHere(id),
    refetchInterval: 4000,
    retry: false,
  });

const benchOf = (id: number) =>
  queryOptions({
    queryKey: keys.bench(id),
    queryFn: () => keptBenches.either(id) as Promise<Bench>,
    // Without a network it may be on this device.
    networkMode: "always",
    gcTime: TWO_WEEKS,
  });

/** A run's bench, kept in this browser so that it opens without a network. */
export const useBench = (id: number) =>
  useQuery({ ...benchOf(id), enabled: !isBegunHere(id), refetchInterval: 6000 });

/** The benches of several runs. */
export const useBenches = (ids: readonly number[]) => useQueries({ queries: ids.map(benchOf) });

/** A rack as it is saved, on the floor. */
export const useFloor = (id: number) =>
  useQuery({
    queryKey: keys.floor(id),
    queryFn: () => keptFloors.either(id),
    networkMode: "always",
    refetchInterval: 10_000,
  });

/** Lines of the log; those of the whole crew are kept for when there is no network. */
export const logOf = (wanted: LogWanted) =>
  queryOptions({
    queryKey: [...keys.log, wanted],
    queryFn: () => reply(api.GET("/api/log", { params: { query: wanted } })),
    ...(Object.values(wanted).some((one) => one !== undefined) ? {} : KEPT),
  });

export const useLog = (wanted: LogWanted) =>
  useQuery({ ...logOf(wanted), placeholderData: keepPreviousData });

/** A run's saves; asked again with each `version` that is saved. */
export const useRevisions = (id: number, version: number) =>
  useQuery({
    queryKey: ["revisions", id, "up to", version],
    placeholderData: keepPreviousData,
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

/** Something added or changed, here where the server is out of reach; what it makes stale is asked again, not waited for. */
function useNowOrLater<Body>(thing: (body: Body) => Thing, stale: readonly (readonly unknown[])[]) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Body) => nowOrLater(thing(body)),
    onSettled: () => void askAnew(queries, stale),
  });
}

type BodyOf<Kind extends Thing["kind"]> = Extract<Thing, { kind: Kind }>["body"];

export const useAdding = <Kind extends Thing["kind"]>(kind: Kind, stale: readonly (readonly unknown[])[]) =>
  useNowOrLater((body: BodyOf<Kind>) => ({ kind, body }) as Thing, stale);

/** `seen`: what of it is shown, as `seenOf` has it. */
export const useChanging = <Kind extends Change["kind"]>(
  kind: Kind,
  target: number,
  seen: object,
  stale: readonly (readonly unknown[])[],
) => useNowOrLater((body: BodyOf<Kind>) => ({ kind, target, seen, body }) as Thing, stale);

/** A write; afterwards what it makes stale is asked again. */
export function useRefreshing<Given, Got>(
  act: (given: Given) => Promise<Got>,
  stale: readonly (readonly unknown[])[],
) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: () => askAnew(queries, stale),
  });
}

export const RACK_AND_CUTS = [keys.rack, ["cuts"]] as const;

export const useSetLimits = () =>
  useRefreshing(
    (limits: Record<string, string>) => reply(api.PUT("/api/limits", { body: { limits } })),
    [keys.limits, keys.jobs, ["bench"], ["cuts"]],
  );

/** What lies in the bin now is told before the lists are asked again: its row is gone then, with all that waits in it. */
export type OnGone = () => void;

export const RESTORE = {
  job: (id: number) => api.POST("/api/jobs/{job_id}/restore", { params: { path: { job_id: id } } }),
  run: (id: number) => api.POST("/api/runs/{run_id}/restore", { params: { path: { run_id: id } } }),
  shoe: (id: number) => api.POST("/api/shoes/{shoe_id}/restore", { params: { path: { shoe_id: id } } }),
};

export const SHOES_AND_BENCHES = [keys.bin, keys.shoes, ["learned"], ["bench"]] as const;
