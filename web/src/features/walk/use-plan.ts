import { replaceEqualDeep } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { ApiError, api, reply } from "@/api/client";
import { LatestOnly } from "@/api/latest";
import type { Plan, RunDocument } from "@/api/types";

const PAUSE_BEFORE_RETRY = 2500;

interface Live {
  plan: Plan | undefined;
  error: string;
}

export interface LivePlan extends Live {
  /** Asks for a document's plan at once, before the screen has been drawn with it. */
  ask: (document: RunDocument) => void;
}

const askPlan = async (document: RunDocument): Promise<Plan> =>
  (await reply(api.POST("/api/plan", { body: { document } }))) as Plan;

/** The plan of a document as it is now; the last one stays on the screen until the next is here. */
export function usePlan(document: RunDocument): LivePlan {
  const [live, setLive] = useState<Live>({ plan: undefined, error: "" });
  const [attempt, setAttempt] = useState(0);
  const line = useMemo(
    () =>
      new LatestOnly<RunDocument, Plan>(askPlan, (_, { got, error }) => {
        // What did not change keeps its identity, so that what shows it need not be drawn anew.
        if (got) return setLive((last) => ({ plan: replaceEqualDeep(last.plan, got), error: "" }));
        setLive((last) => ({ ...last, error: error instanceof Error ? error.message : "No plan came." }));
        if (!(error instanceof ApiError) || error.status === 0 || error.status >= 500)
          setTimeout(() => setAttempt((count) => count + 1), PAUSE_BEFORE_RETRY);
      }),
    [],
  );
  const asked = useRef<RunDocument | null>(null);
  const ask = useCallback(
    (next: RunDocument) => {
      if (asked.current === next) return;
      asked.current = next;
      line.want(next);
    },
    [line],
  );
  useEffect(() => ask(document), [ask, document]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a new attempt asks the same again
  useEffect(() => {
    if (attempt) line.want(document);
  }, [line, attempt]);
  useEffect(() => () => line.stop(), [line]);
  return { ...live, ask };
}
