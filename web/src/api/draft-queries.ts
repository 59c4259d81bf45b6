import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, reply } from "./client";
import { isBegunHere } from "./own-numbers";
import { keys } from "./queries";
import type { GivenMark, MarksJudged, NoteOut, RackOption, RunDocument, SharedClosing, Way } from "./types";

// What is asked of a run as it stands on the screen, kept or not: nothing of it is written anywhere.

/**
 * Until the next answer is there the last one is shown; hardly any is asked for twice. Without a network this device may
 * answer.
 */
const LIVE = {
  placeholderData: keepPreviousData,
  gcTime: 10_000,
  networkMode: "always",
  refetchOnReconnect: true,
} as const;

export const useWays = (document: RunDocument, step: number) =>
  useQuery({
    queryKey: ["ways", document, step],
    queryFn: () => reply(api.POST("/api/ways", { body: { document, step } })) as Promise<Way[]>,
    ...LIVE,
  });

/** What a run misses its end box by, shared over the legs at these places. */
export const useClosing = (document: RunDocument, legs: string[]) =>
  useQuery({
    queryKey: ["closing", document, legs],
    queryFn: () => reply(api.POST("/api/closing", { body: { document, legs } })) as Promise<SharedClosing>,
    ...LIVE,
  });

/** How the pipes beside a run could take a step; nothing is asked where there are none. */
export const useRackWays = (document: RunDocument, step: number) =>
  useQuery({
    queryKey: ["rack ways", document, step],
    queryFn: () =>
      reply(api.POST("/api/pipe-rack/ways", { body: { document, step } })) as Promise<RackOption[]>,
    enabled: Boolean(document.rack),
    ...LIVE,
  });

export const useMarksJudged = (document: RunDocument, marks: GivenMark[] | null, cuts: string[]) =>
  useQuery({
    queryKey: ["marks", document, marks, cuts],
    queryFn: () =>
      reply(
        api.POST("/api/check-marks", { body: { document, marks: marks ?? [], cuts } }),
      ) as Promise<MarksJudged>,
    enabled: marks !== null,
    retry: false,
    ...LIVE,
  });

export const useCompared = (mine: RunDocument, theirs: RunDocument | undefined) =>
  useQuery({
    queryKey: ["compare", mine, theirs],
    queryFn: () => reply(api.POST("/api/compare", { body: { mine, theirs: theirs ?? mine } })),
    enabled: theirs !== undefined,
    ...LIVE,
  });

const BETWEEN_LOOKS = 10_000;

/** What the run as it stands on the screen would have otherwise of its pieces that are reserved, cut or bent. */
export const useUnderChange = (runId: number, document: RunDocument) =>
  useQuery({
    queryKey: [...keys.underChange(runId), document],
    queryFn: () =>
      reply(
        api.POST("/api/runs/{run_id}/changed", { params: { path: { run_id: runId } }, body: { document } }),
      ),
    enabled: !isBegunHere(runId),
    // Others cut and bend meanwhile.
    refetchInterval: BETWEEN_LOOKS,
    retry: false,
    ...LIVE,
  });

/** The run as a field note. */
export const useWrittenNote = (document: RunDocument) =>
  useQuery({
    queryKey: ["note", document],
    queryFn: () => reply(api.POST("/api/note/write", { body: { document } })) as Promise<NoteOut>,
    ...LIVE,
  });
