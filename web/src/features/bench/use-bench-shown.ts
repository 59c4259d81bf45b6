import { useQuery } from "@tanstack/react-query";
import { useMemo, useRef, useSyncExternalStore } from "react";
import { type BenchHere, benchHere, benchOfRun } from "@/api/bench-here";
import { core } from "@/api/core/keeping";
import { isBegunHere } from "@/api/own-numbers";
import { useBench, useMe, useRun, useShoes } from "@/api/queries";
import type { Bench } from "@/api/types";
import { useReach } from "@/api/use-reach";
import { asQueued, type Queue } from "./acts-queue";

export interface BenchShown {
  /** As it stands with all that was done here; undefined while it is asked for, or where nobody can say. */
  bench: Bench | undefined;
  /** Of what waits to be sent, what the sheets do not count yet. */
  uncounted: Queue;
  /** What this device finds cannot be done, and why; the server is asked all the same. */
  notDone: BenchHere["notDone"];
  isAsked: boolean;
  error: Error | null;
  /** The run is at the server by now, under this number. */
  movedTo: number | undefined;
}

/**
 * A run's bench: the server's, or, while that is out of reach and the core is on this device, made here from what is
 * kept of it and what was done since.
 */
export function useBenchShown(runId: number, queue: Queue): BenchShown {
  const there = useBench(runId);
  const isMadeHere = useMadeHere(runId, queue);
  const run = useRun(runId, isMadeHere && !there.data);
  const ofRun = useMemo(() => run.data && benchOfRun(run.data), [run.data]);
  const base = there.data ?? ofRun;
  const here = useHere(base, there.dataUpdatedAt || run.dataUpdatedAt, isMadeHere, queue);
  const made = isMadeHere ? here.data : undefined;
  const shown = made?.bench ?? there.data;
  return {
    bench: useMemo(() => shown && asQueued(shown, queue), [shown, queue]),
    uncounted: useMemo(
      () => (made ? queue.filter((act) => !made.counted.has(act.key)) : queue),
      [made, queue],
    ),
    notDone: made?.notDone ?? NOTHING,
    isAsked: isMadeHere ? here.isFetching || run.isFetching : there.isFetching,
    error: shown ? null : isMadeHere ? (here.error ?? run.error) : there.error,
    movedTo: run.data && run.data.id !== runId ? run.data.id : undefined,
  };
}

const NOTHING: BenchHere["notDone"] = [];

/** Whether this device makes the bench: out of reach of the server, and from then on until all that waits is sent. */
function useMadeHere(runId: number, queue: Queue): boolean {
  const { state } = useSyncExternalStore(core.subscribe, core.snapshot);
  const reach = useReach();
  const wasAway = useRef(false);
  wasAway.current = !reach || (wasAway.current && queue.length > 0);
  return state === "here" && (isBegunHere(runId) || wasAway.current);
}

function useHere(base: Bench | undefined, baseAt: number, isMadeHere: boolean, queue: Queue) {
  const shoes = useShoes().data;
  const me = useMe().data;
  return useQuery({
    queryKey: ["bench here", base?.run_id, baseAt, queue.map((act) => act.key), shoes?.length],
    queryFn: () => {
      if (!base) throw new Error("nothing is known of the run");
      return benchHere(base, queue, shoes ?? [], me?.name ?? "");
    },
    enabled: isMadeHere && base !== undefined,
    // The same run's, until the next answer is there.
    placeholderData: (before, query) => (query?.queryKey[1] === base?.run_id ? before : undefined),
    networkMode: "always",
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 10_000,
  });
}
