import { queryOptions, useMutation, useQuery } from "@tanstack/react-query";
import { seenOf } from "./changes";
import { api, reply } from "./client";
import { KEPT, keys, RACK_AND_CUTS, useAdding, useChanging, useRefreshing } from "./queries";
import type { ListIn, Scrap, Tape } from "./types";

export const RACK = queryOptions({
  queryKey: keys.rack,
  queryFn: () => reply(api.GET("/api/rack")),
  ...KEPT,
});

export const useRack = () => useQuery(RACK);

export const useAddScrap = () => useAdding("scrap", RACK_AND_CUTS);

export const useAddScrapList = () =>
  useRefreshing((body: ListIn) => reply(api.POST("/api/rack/list", { body })), RACK_AND_CUTS);

/** What a list says, before anything of it is put on the rack. */
export const useReadScrapList = () =>
  useMutation({ mutationFn: (body: ListIn) => reply(api.POST("/api/rack/list/read", { body })) });

/** The tape that the rack is measured with. */
export const useSetTape = () =>
  useRefreshing((tape: Tape) => reply(api.PUT("/api/rack/tape", { body: { tape } })), RACK_AND_CUTS);

export const useCorrectScrap = (scrap: Scrap) =>
  useChanging("scrap change", scrap.id, seenOf.scrap(scrap), RACK_AND_CUTS);

export const useRecycle = () =>
  useRefreshing(
    (id: number) => reply(api.POST("/api/rack/{scrap_id}/recycle", { params: { path: { scrap_id: id } } })),
    RACK_AND_CUTS,
  );

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
