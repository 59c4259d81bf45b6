import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, reply } from "@/api/client";
import { keys } from "@/api/queries";
import { keepQueue, readQueue, runsUnsent } from "./acts-queue";

/**
 * Sends what was done at benches that are closed again, once there is a network. What is refused waits
 * until its bench is opened, where it is told. An open bench sends its own.
 */
export function useUnsent(owner: string | undefined, openRun: number | null) {
  const queries = useQueryClient();
  useEffect(() => {
    if (!owner) return;
    const send = () => {
      for (const runId of runsUnsent(owner)) {
        // Where it cannot be sent there will be another time.
        if (runId !== openRun) sendRun(owner, runId).catch(() => undefined);
      }
    };
    const sendRun = async (person: string, runId: number) => {
      const acts = readQueue(person, runId);
      const sent = api.POST("/api/runs/{run_id}/bench", {
        params: { path: { run_id: runId } },
        body: { acts },
      });
      const { outcomes, bench } = await reply(sent);
      const done = new Set(outcomes.flatMap((one) => (one.done ? [one.key] : [])));
      keepQueue(
        person,
        runId,
        readQueue(person, runId).filter((act) => !done.has(act.key)),
      );
      queries.setQueryData(keys.bench(runId), bench);
      queries.invalidateQueries({ queryKey: [...keys.jobs] });
    };
    send();
    window.addEventListener("online", send);
    return () => window.removeEventListener("online", send);
  }, [owner, openRun, queries]);
}
