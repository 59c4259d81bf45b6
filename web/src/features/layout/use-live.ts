import { replaceEqualDeep } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { ApiError } from "@/api/client";
import { LatestOnly } from "@/api/latest";
import type { RunDocument } from "@/api/types";
import { t } from "@/words/layout";

const PAUSE_BEFORE_RETRY = 2500;

interface Answered<Got> {
  got: Got | undefined;
  error: string;
}

export interface Live<Got> extends Answered<Got> {
  /** Asks about a document at once, before the screen has been drawn with it. */
  ask: (document: RunDocument) => void;
}

/**
 * What the server says of a document as it is now; the last answer stays on the screen until the next is here.
 * Nothing is asked about no document. `question` must be the same function at each call.
 */
export function useLive<Got>(
  document: RunDocument | null,
  question: (document: RunDocument) => Promise<Got>,
): Live<Got> {
  const [live, setLive] = useState<Answered<Got>>({ got: undefined, error: "" });
  const [attempt, setAttempt] = useState(0);
  const line = useMemo(
    () =>
      new LatestOnly<RunDocument, Got>(question, (_, { got, error }) => {
        // What did not change keeps its identity, so that what shows it need not be drawn anew.
        if (got) return setLive((last) => ({ got: replaceEqualDeep(last.got, got), error: "" }));
        setLive((last) => ({ ...last, error: error instanceof Error ? error.message : t("plan.none") }));
        if (!(error instanceof ApiError) || error.status === 0 || error.status >= 500)
          setTimeout(() => setAttempt((count) => count + 1), PAUSE_BEFORE_RETRY);
      }),
    [question],
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
  useEffect(() => {
    if (document) ask(document);
  }, [ask, document]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a new attempt asks the same again
  useEffect(() => {
    if (attempt && document) line.want(document);
  }, [line, attempt]);
  useEffect(() => () => line.stop(), [line]);
  return { ...live, ask };
}
