import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { ApiError, api, reply } from "@/api/client";
import { newKey } from "@/api/new-key";
import { keys } from "@/api/queries";
import type { BenchAct, Outcome } from "@/api/types";
import { answered, type Doing, keepQueue, type Queue, queued, readQueue } from "./acts-queue";

const PAUSE_BEFORE_RETRY = 3000;
/** What sending again would not change; signed out is not among it. */
const REFUSALS = [400, 404, 422];

export interface Refused {
  act: BenchAct;
  says: string;
}

export interface Acts {
  queue: Queue;
  /** What the server refused, and why, until it is read or entered anew. */
  refused: Refused[];
  forget: () => void;
  offline: boolean;
  act: (doing: Doing) => void;
}

/** Sends what is done at the bench as soon as it can be sent; until then it is kept here. */
export function useActs(runId: number, owner: string): Acts {
  const [queue, setQueue] = useState<Queue>(() => readQueue(owner, runId));
  const [refused, setRefused] = useState<Refused[]>([]);
  const [offline, setOffline] = useState(!navigator.onLine);
  const [tries, setTries] = useState(0);
  const sending = useRef(false);
  const queries = useQueryClient();

  useEffect(() => keepQueue(owner, runId, queue), [owner, runId, queue]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: each try sends what is queued by then
  useEffect(() => {
    if (queue.length === 0 || sending.current) return;
    sending.current = true;
    reply(
      api.POST("/api/runs/{run_id}/bench", { params: { path: { run_id: runId } }, body: { acts: queue } }),
    )
      .then(async ({ outcomes, bench }) => {
        // An answer that was asked for before this was done must not come after it.
        await queries.cancelQueries({ queryKey: keys.bench(runId) });
        setOffline(false);
        setQueue((now) => answered(now, outcomes));
        setRefused((now) => [...now, ...refusedOf(queue, outcomes)]);
        queries.setQueryData(keys.bench(runId), bench);
        for (const queryKey of [keys.jobs, keys.log, keys.rack, ["learned"], ["cuts"]])
          queries.invalidateQueries({ queryKey: [...queryKey] });
        sending.current = false;
        setTries((now) => now + 1);
      })
      .catch((error: unknown) => {
        sending.current = false;
        if (error instanceof ApiError && REFUSALS.includes(error.status)) {
          setRefused((now) => [...now, ...queue.map((act) => ({ act, says: error.message }))]);
          setQueue((now) => now.slice(queue.length));
          return;
        }
        setOffline(true);
        setTimeout(() => setTries((now) => now + 1), PAUSE_BEFORE_RETRY);
      });
  }, [runId, queue, tries, queries]);

  useEffect(() => {
    const back = () => setTries((now) => now + 1);
    const gone = () => setOffline(true);
    const there = () => {
      setOffline(false);
      back();
    };
    window.addEventListener("online", there);
    window.addEventListener("offline", gone);
    return () => {
      window.removeEventListener("online", there);
      window.removeEventListener("offline", gone);
    };
  }, []);

  const act = useCallback((doing: Doing) => {
    setRefused((now) => now.filter((one) => !isAgain(one.act, doing)));
    setQueue((now) => queued(now, doing, newKey(), new Date()));
  }, []);
  const forget = useCallback(() => setRefused([]), []);
  return { queue, refused, forget, offline, act };
}

const refusedOf = (queue: Queue, outcomes: Outcome[]): Refused[] =>
  outcomes.flatMap((one) => {
    const act = queue.find((sent) => sent.key === one.key);
    return one.done || !act ? [] : [{ act, says: one.says ?? "" }];
  });

/** Whether the same is done once more, as a bend's reading mended. */
const isAgain = (act: BenchAct, doing: Doing): boolean =>
  act.kind === doing.kind &&
  act.piece === doing.piece &&
  (act.kind !== "bent" || (doing.kind === "bent" && act.bend === doing.bend));
