import { useQueryClient } from "@tanstack/react-query";
import { createContext, type ReactNode, useContext, useEffect, useState, useSyncExternalStore } from "react";
import { askAnew, takeAsNow } from "@/api/after-writes";
import { sendBegun } from "@/api/begun-here";
import { ApiError, api, reply } from "@/api/client";
import { isBegunHere } from "@/api/own-numbers";
import { ownerOf } from "@/api/owner";
import { keys } from "@/api/queries";
import type { Bench, BenchAct, Me } from "@/api/types";
import { moveOldQueues } from "./old-queues";
import { type Answer, Outbox, type Snapshot } from "./outbox";
import { IndexedOutbox } from "./outbox-store";

export const store = new IndexedOutbox();
const CHANNEL = "crelda-outbox";
const Context = createContext<Outbox | null>(null);

/** Other tabs take their turn; where a browser has no locks the keys of the acts still see to it that each is done once. */
const alone = async (task: () => Promise<void>): Promise<void> => {
  if (navigator.locks) await navigator.locks.request(CHANNEL, task);
  else await task();
};

/** Sends what a person did at benches, from wherever in the program they are, in whichever tab. */
export function OutboxProvider({ me, children }: { me: Me; children: ReactNode }) {
  const queries = useQueryClient();
  const owner = ownerOf(me);
  const [channel] = useState(() => new BroadcastChannel(CHANNEL));
  const [outbox] = useState(() => {
    const sent = async (bench: Bench) => {
      await takeAsNow(queries, keys.bench(bench.run_id), bench);
      void askAnew(queries, [keys.jobs, keys.log, keys.rack, ["learned"], ["cuts"]]);
    };
    const later = (task: () => void, milliseconds: number) => {
      const timer = setTimeout(task, milliseconds);
      return () => clearTimeout(timer);
    };
    const post = async (of: number, acts: BenchAct[]) => {
      // A run that was begun here goes first.
      const runId = isBegunHere(of) ? await sendBegun(of) : of;
      if (runId !== of) await store.renumber(of, runId);
      const asked = api.POST("/api/runs/{run_id}/bench", {
        params: { path: { run_id: runId } },
        body: { acts, sent_at: new Date().toISOString() },
      });
      return (reply(asked) as Promise<Answer>).catch((error: unknown) => {
        // Signed out by time: the sign-in page says that something waits here.
        if (error instanceof ApiError && error.status === 401) queries.setQueryData(keys.me, null);
        throw error;
      });
    };
    return new Outbox(owner, { store, post, alone, later, sent, tell: () => channel.postMessage("changed") });
  });

  useEffect(() => {
    const back = () => document.visibilityState === "visible" && outbox.send();
    channel.onmessage = () => {
      void outbox.look().then(outbox.send);
      void queries.invalidateQueries({ queryKey: ["bench"] });
    };
    window.addEventListener("online", outbox.send);
    document.addEventListener("visibilitychange", back);
    moveOldQueues(store, me.username, owner).finally(() => outbox.open());
    // Another tab that was sending may have been closed before it was done.
    const timer = setInterval(outbox.send, 30_000);
    return () => {
      window.removeEventListener("online", outbox.send);
      document.removeEventListener("visibilitychange", back);
      clearInterval(timer);
      outbox.close();
    };
  }, [outbox, channel, queries, me.username, owner]);

  return <Context value={outbox}>{children}</Context>;
}

export function useOutbox(): Outbox {
  const outbox = useContext(Context);
  if (!outbox) throw new Error("outside of the outbox");
  return outbox;
}

export function useOutboxSnapshot(): Snapshot {
  const outbox = useOutbox();
  return useSyncExternalStore(outbox.subscribe, outbox.snapshot);
}
