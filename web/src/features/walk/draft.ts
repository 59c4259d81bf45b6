import type { Run, RunDocument } from "@/api/types";

export type Saving = "saved" | "unsaved" | "saving" | "unreachable" | "stale" | "refused";

/** A run while it is worked on: the document as typed, its history, and how it stands with the server. */
export interface Draft {
  document: RunDocument;
  version: number;
  saving: Saving;
  past: RunDocument[];
  future: RunDocument[];
  lastEdit: string;
  theirs: Run | null;
  refusal: string;
  /** What was last sent to be saved: if it comes back as somebody's save, it was ours, its reply lost. */
  sent: RunDocument | null;
}

export type DraftEvent =
  | { type: "edit"; document: RunDocument; place: string }
  | { type: "undo" }
  | { type: "redo" }
  | { type: "saving" }
  | { type: "saved"; version: number; document: RunDocument }
  | { type: "unreachable" }
  | { type: "refused"; says: string }
  | { type: "stale"; theirs: Run }
  | { type: "newer"; theirs: Run }
  | { type: "take theirs" }
  | { type: "keep mine" };

const MOST_UNDO = 200;

export function openDraft(run: Run, kept: Kept | null): Draft {
  const fresh: Draft = {
    document: run.document,
    version: run.version,
    saving: "saved",
    past: [],
    future: [],
    lastEdit: "",
    theirs: null,
    refusal: "",
    sent: null,
  };
  if (!kept || same(kept.document, run.document)) return fresh;
  const ours = kept.sent && same(kept.sent, run.document);
  if (kept.version === run.version || ours) return { ...fresh, document: kept.document, saving: "unsaved" };
  return { ...fresh, document: kept.document, version: kept.version, saving: "stale", theirs: run };
}

export const same = (a: RunDocument, b: RunDocument): boolean => JSON.stringify(a) === JSON.stringify(b);

/** After a change the draft is unsaved, unless a conflict waits to be settled first. */
const changed = (draft: Draft): Saving => (draft.saving === "stale" ? "stale" : "unsaved");

const taken = (draft: Draft, theirs: Run): Draft => ({
  ...draft,
  document: theirs.document,
  version: theirs.version,
  past: [...draft.past, draft.document],
  future: [],
  lastEdit: "",
  saving: "saved",
  theirs: null,
});

export function draftReducer(draft: Draft, event: DraftEvent): Draft {
  switch (event.type) {
    case "edit": {
      // Letters typed into one field are one step back.
      const joined = event.place !== "" && event.place === draft.lastEdit;
      const past = joined ? draft.past : [...draft.past, draft.document].slice(-MOST_UNDO);
      return {
        ...draft,
        document: event.document,
        past,
        future: [],
        lastEdit: event.place,
        saving: changed(draft),
      };
    }
    case "undo": {
      const document = draft.past.at(-1);
      if (!document) return draft;
      const future = [draft.document, ...draft.future];
      return {
        ...draft,
        document,
        past: draft.past.slice(0, -1),
        future,
        lastEdit: "",
        saving: changed(draft),
      };
    }
    case "redo": {
      const [document, ...future] = draft.future;
      if (!document) return draft;
      return {
        ...draft,
        document,
        past: [...draft.past, draft.document],
        future,
        lastEdit: "",
        saving: changed(draft),
      };
    }
    case "saving":
      return { ...draft, saving: "saving", sent: draft.document };
    case "saved":
      return {
        ...draft,
        version: event.version,
        saving: same(event.document, draft.document) ? "saved" : "unsaved",
      };
    case "unreachable":
      return { ...draft, saving: "unreachable" };
    case "refused":
      return { ...draft, saving: "refused", refusal: event.says };
    case "stale":
      if (draft.sent && same(draft.sent, event.theirs.document)) {
        return { ...draft, version: event.theirs.version, saving: "unsaved", sent: null };
      }
      return { ...draft, saving: "stale", theirs: event.theirs };
    case "newer":
      // One's own, from another window; what was typed here meanwhile is held against it when it is saved.
      return draft.saving === "saved" ? taken(draft, event.theirs) : draft;
    case "take theirs":
      return draft.theirs ? taken(draft, draft.theirs) : draft;
    case "keep mine":
      if (!draft.theirs) return draft;
      return { ...draft, version: draft.theirs.version, saving: "unsaved", theirs: null };
  }
}

/** What this browser keeps of unsaved work, so that a reload loses nothing. */
export interface Kept {
  version: number;
  document: RunDocument;
  sent: RunDocument | null;
}

/** A draft is one person's own: on a shared phone nobody sees what another has typed. */
const storageKey = (owner: string, runId: number): string => `crelda.run.${owner}.${runId}`;

export function readKept(owner: string, runId: number): Kept | null {
  try {
    const text = localStorage.getItem(storageKey(owner, runId));
    return text ? (JSON.parse(text) as Kept) : null;
  } catch {
    return null;
  }
}

export function keep(owner: string, runId: number, draft: Draft): void {
  try {
    if (draft.saving === "saved") localStorage.removeItem(storageKey(owner, runId));
    else {
      const kept: Kept = { version: draft.version, document: draft.document, sent: draft.sent };
      localStorage.setItem(storageKey(owner, runId), JSON.stringify(kept));
    }
  } catch {
    // A full or forbidden storage only costs the second copy; the server has the first.
  }
}

/** What was kept is saved; what has been typed since stays. */
export function forget(owner: string, runId: number, saved: RunDocument): void {
  const kept = readKept(owner, runId);
  if (kept && same(kept.document, saved)) localStorage.removeItem(storageKey(owner, runId));
}
