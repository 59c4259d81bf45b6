import { useQuery } from "@tanstack/react-query";
import { api, reply } from "./client";
import { keys, RESTORE, useRefreshing } from "./queries";
import type { Binned } from "./types";

/** What the crew deleted; only its lead sees it. */
export const useBin = (enabled: boolean) =>
  useQuery({ queryKey: keys.bin, queryFn: () => reply(api.GET("/api/bin")), enabled });

export const useRestore = () =>
  useRefreshing(
    async ({ kind, id }: Pick<Binned, "kind" | "id">) => {
      await reply<unknown>(RESTORE[kind](id));
    },
    [keys.bin, keys.jobs, keys.shoes, keys.rack, ["cuts"], ["bench"]],
  );

/** Deletes things in the bin for good. */
export const useEmptyBin = () =>
  useRefreshing(
    (things: Pick<Binned, "kind" | "id">[]) =>
      reply<unknown>(
        api.POST("/api/bin/empty", { body: { things: things.map(({ kind, id }) => ({ kind, id })) } }),
      ),
    [keys.bin],
  );
