import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useReducer, useRef } from "react";
import { askAnew } from "@/api/after-writes";
import { saveHere } from "@/api/begun-here";
import { ApiError, api, reply } from "@/api/client";
import { isBegunHere } from "@/api/own-numbers";
import { keys, useOwner } from "@/api/queries";
import { isRefusal } from "@/api/reachable";
import type { Run, RunDocument } from "@/api/types";
import {
  type Draft,
  type DraftEvent,
  draftReducer,
  forget,
  keep,
  keepHistory,
  openDraft,
  readHistory,
  readKept,
} from "./draft";

const PAUSE_BEFORE_SAVE = 400;
// However fast one types, what was typed first waits no longer than this.
const LONGEST_UNSAVED = 800;
const PAUSE_BEFORE_RETRY = 4000;

const staleAfterSaving = (runId: number) => [keys.jobs, keys.bench(runId), ["cuts"]];

export interface DraftHandle {
  draft: Draft;
  edit: (document: RunDocument, place: string) => void;
  send: (event: DraftEvent) => void;
}

/** A run's draft: edits at once, saves as one types, keeps a copy here until the server has it. */
export function useDraft(run: Run): DraftHandle {
  const owner = useOwner();
  const [draft, send] = useReducer(draftReducer, run, (opened) =>
    openDraft(opened, readKept(owner, opened.id), readHistory(owner, opened.id)),
  );
  const queries = useQueryClient();
  const { document, version, saving } = draft;

  useEffect(() => keep(owner, run.id, draft), [owner, run.id, draft]);
  const { past, future, base } = draft;
  useEffect(() => keepHistory(owner, run.id, { past, future, base }), [owner, run.id, past, future, base]);

  const unsavedSince = useRef(0);
  useEffect(() => {
    if (saving === "unsaved") unsavedSince.current = Date.now();
  }, [saving]);

  // One save at a time: the next is made from the version that this one makes.
  const underWay = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each change of the document starts the pause anew, and so does the answer to a save
  useEffect(() => {
    if (saving !== "unsaved" && saving !== "unreachable") return;
    const left = LONGEST_UNSAVED - (Date.now() - unsavedSince.current);
    const pause = saving === "unsaved" ? Math.max(0, Math.min(PAUSE_BEFORE_SAVE, left)) : PAUSE_BEFORE_RETRY;
    const timer = setTimeout(() => underWay.current || send({ type: "saving" }), pause);
    return () => clearTimeout(timer);
  }, [saving, document, version]);

  // A save that no answer came to may have been done: it goes first again, as it was, or what is typed since would
  // be held against it.
  const unanswered = useRef<{ version: number; document: RunDocument } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: one save each time that saving begins, whatever is typed meanwhile
  useEffect(() => {
    if (saving !== "saving") return;
    const asked = unanswered.current ?? { version, document };
    unanswered.current = asked;
    underWay.current = true;
    save(run.id, asked.version, asked.document)
      .then((saved) => {
        unanswered.current = null;
        send({ type: "saved", version: saved.version, document: asked.document });
        void askAnew(queries, staleAfterSaving(run.id));
      })
      .catch((error: unknown) => {
        const failed = failure(error);
        if (failed.type !== "unreachable") unanswered.current = null;
        send(failed);
      })
      .finally(() => {
        underWay.current = false;
      });
  }, [saving]);

  useSavedOnLeaving(owner, run.id, draft);

  const edit = useCallback(
    (next: RunDocument, place: string) => send({ type: "edit", document: next, place }),
    [],
  );
  return { draft, edit, send };
}

/** Saves at once what was typed right before another view was opened; the views show what is saved. */
function useSavedOnLeaving(owner: string, runId: number, draft: Draft) {
  const queries = useQueryClient();
  const latest = useRef(draft);
  latest.current = draft;
  useEffect(
    () => () => {
      const left = latest.current;
      if (left.saving !== "unsaved" && left.saving !== "unreachable") return;
      save(runId, left.version, left.document)
        .then(() => {
          forget(owner, runId, left.document);
          void askAnew(queries, staleAfterSaving(runId));
        })
        // It is kept in this browser and comes up again when the run is opened.
        .catch(() => undefined);
    },
    [owner, runId, queries],
  );
}

const save = (runId: number, version: number, document: RunDocument): Promise<{ version: number }> =>
  isBegunHere(runId)
    ? saveHere(runId, version, document)
    : reply(
        api.PUT("/api/runs/{run_id}", { params: { path: { run_id: runId } }, body: { version, document } }),
      );

function failure(error: unknown): DraftEvent {
  if (error instanceof ApiError && error.status === 409 && error.theirs)
    return { type: "stale", theirs: error.theirs as Run };
  if (error instanceof ApiError && isRefusal(error.status)) return { type: "refused", says: error.message };
  return { type: "unreachable" };
}
