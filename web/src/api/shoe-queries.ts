import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { seenOf } from "./changes";
import { api, reply } from "./client";
import { keys, type OnGone, SHOES_AND_BENCHES, useAdding, useChanging, useRefreshing } from "./queries";
import type { CalibrationIn, Learned, RunDocument, Shoe } from "./types";

export const useLearned = (shoeId: number) =>
  useQuery({
    queryKey: keys.learned(shoeId),
    queryFn: () =>
      reply(
        api.GET("/api/shoes/{shoe_id}/learned", { params: { path: { shoe_id: shoeId } } }),
      ) as Promise<Learned>,
  });

export const useTestBends = (shoeId: number, given: CalibrationIn | null) =>
  useQuery({
    queryKey: ["test bends", shoeId, given],
    queryFn: () =>
      reply(
        api.POST("/api/shoes/{shoe_id}/test", {
          params: { path: { shoe_id: shoeId } },
          body: given ?? { tests: [], dials: [] },
        }),
      ),
    enabled: given !== null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 10_000,
  });

export const useAddShoe = () => useAdding("shoe", SHOES_AND_BENCHES);

/** Changes a shoe; without one nothing is changed. */
export const useChangeShoe = (shoe: Shoe | undefined) =>
  useChanging("shoe change", shoe?.id ?? 0, shoe ? seenOf.shoe(shoe) : {}, SHOES_AND_BENCHES);

export const useRemoveShoe = (onGone: OnGone) =>
  useRefreshing(
    (id: number) =>
      reply(api.DELETE("/api/shoes/{shoe_id}", { params: { path: { shoe_id: id } } })).then(onGone),
    SHOES_AND_BENCHES,
  );

export const useCalibrate = (id: number) =>
  useRefreshing(
    (body: CalibrationIn) =>
      reply(api.POST("/api/shoes/{shoe_id}/calibrate", { params: { path: { shoe_id: id } }, body })),
    SHOES_AND_BENCHES,
  );

export const useTakeLearned = (id: number) =>
  useRefreshing(
    (body: { deduct: boolean; gain: boolean; dial: boolean }) =>
      reply(api.POST("/api/shoes/{shoe_id}/learned", { params: { path: { shoe_id: id } }, body })),
    SHOES_AND_BENCHES,
  );

/** Puts a shoe's figures as they are now into a run. */
export const useRefigure = (runId: number) =>
  useRefreshing(
    (body: { version: number; document: RunDocument }) =>
      reply(api.PUT("/api/runs/{run_id}", { params: { path: { run_id: runId } }, body })),
    [keys.bench(runId), keys.run(runId), keys.jobs, ["cuts"]],
  );
