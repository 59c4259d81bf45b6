import { useEffect, useMemo, useState } from "react";
import { ApiError, api, reply } from "@/api/client";
import { LatestOnly } from "@/api/latest";
import type { Plan, RunDocument } from "@/api/types";

const PAUSE_BEFORE_RETRY = 2500;

export interface LivePlan {
  plan: Plan | undefined;
  error: string;
}

const askPlan = async (document: RunDocument): Promise<Plan> =>
  (await reply(api.POST("/api/plan", { body: { document } }))) as Plan;

/** The plan of a document as it is now; the last one stays on the screen until the next is here. */
export function usePlan(document: RunDocument): LivePlan {
  const [live, setLive] = useState<LivePlan>({ plan: undefined, error: "" });
  const [attempt, setAttempt] = useState(0);
  const line = useMemo(
    () =>
      new LatestOnly<RunDocument, Plan>(askPlan, (_, { got, error }) => {
        if (got) return setLive({ plan: got, error: "" });
        setLive((last) => ({ ...last, error: error instanceof Error ? error.message : "No plan came." }));
        if (!(error instanceof ApiError) || error.status === 0 || error.status >= 500)
          setTimeout(() => setAttempt((count) => count + 1), PAUSE_BEFORE_RETRY);
      }),
    [],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new attempt asks the same again
  useEffect(() => line.want(document), [line, document, attempt]);
  useEffect(() => () => line.stop(), [line]);
  return live;
}
