import type { Run, RunDocument } from "@/api/types";
import { merged, same } from "./merge";

export type Saving = "saved" | "unsaved" | "saving" | "unreachable" | "stale" | "refused";

/** A run while it is worked on: the document as typed, its history, and how it stands with the server. */
export interface Draft {
  document: RunDocument;
  version: number;
  /** What was saved as that version: what others change meanwhile is put together with what is changed here. */
  base: RunDocument;
  saving: Saving;
  past: RunDocument[];
  future: RunDocument[];
  lastEdit: string;
  theirs: Run | null;
  refusal: string;
  /** What was last sent to be saved: if it comes back as somebody's save, it was ours, its reply lost. */
  sent: RunDocument | null;
  /** What somebody else's save changed here, until it is seen. */
  told: Told | null;
}

export interface Told {
  by: string;
  /** The run as it was saved before, what was saved here meanwhile counted in, and as it is now. */
  before: RunDocument;
  after: RunDocument;
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
  | { type: "take theirs" }
  | { type: "keep mine" }
  | { type: "seen" };

const MOST_UNDO = 200;
/** From what a draft of an earlier program was made: whatever differs from theirs may then be either's. */
const UNKNOWN = {} as RunDocument;

/** A run as it was saved last, with what is kept here of work on it: what was not saved, and the steps back. */
export function openDraft(run: Run, kept: Kept | null, history: History | null = null): Draft {
  const fresh: Draft = {
    document: run.document,
    version: run.version,
    base: run.document,
    saving: "saved",
    past: [],
    future: [],
    lastEdit: "",
    theirs: null,
    refusal: "",
    sent: null,
    told: null,
  };
  const steps = history ? steppedOver(fresh, history, history.base, run.document) : fresh;
  if (!kept || same(kept.document, run.document)) return steps;
  const ours = kept.sent && same(kept.sent, run.document);
  if (kept.version === run.version || ours) return { ...steps, document: kept.document, saving: "unsaved" };
  const { document, version } = kept;
  return overtaken({ ...steps, document, version, base: kept.base ?? UNKNOWN }, run);
}

/** After a change the draft is unsaved, unless a conflict waits to be settled first. */
const changed = (draft: Draft): Saving => (draft.saving === "stale" ? "stale" : "unsaved");

/** Somebody saved another version: both changes are put together, or it is asked whose stands. */
function overtaken(draft: Draft, theirs: Run): Draft {
  const document = merged(draft.base, draft.document, theirs.document);
  return document ? onTheirs(draft, theirs, document) : { ...draft, saving: "stale", theirs };
}

/** The draft made from their version on, as this document; steps back keep what they changed. */
function onTheirs(draft: Draft, theirs: Run, document: RunDocument): Draft {
  return {
    ...steppedOver(draft, draft, draft.base, theirs.document),
    document,
    version: theirs.version,
    base: theirs.document,
    lastEdit: "",
    saving: same(document, theirs.document) ? "saved" : "unsaved",
    theirs: null,
    told: { by: theirs.saved_by, before: draft.told?.before ?? draft.base, after: theirs.document },
  };
}

/** The steps back and forth, each with what was changed meanwhile; those that touch the same figures are left out. */
function steppedOver(
  draft: Draft,
  { past, future }: Pick<History, "past" | "future">,
  base: RunDocument,
  now: RunDocument,
): Draft {
  if (same(base, now)) return { ...draft, past, future };
  const over = (steps: RunDocument[]) => steps.flatMap((step) => merged(base, step, now) ?? []);
  return { ...draft, past: over(past), future: over(future) };
}

/** Where both changed the same figures, as one of them has it; what only one changed stays in either case. */
export function settledBy(draft: Draft, theirs: Run, side: "mine" | "theirs"): RunDocument {
  return merged(draft.base, draft.document, theirs.document, side);
}

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
        told: draft.told && {
          ...draft.told,
          before: merged(draft.base, draft.told.before, event.document, "mine"),
          after: event.document,
        },
        version: event.version,
        base: event.document,
        saving: same(event.document, draft.document) ? "saved" : "unsaved",
      };
    case "unreachable":
      return { ...draft, saving: "unreachable" };
    case "refused":
      return { ...draft, saving: "refused", refusal: event.says };
    case "stale":
      if (draft.sent && same(draft.sent, event.theirs.document)) {
        const { version, document: base } = event.theirs;
        return { ...draft, version, base, saving: "unsaved", sent: null };
      }
      return overtaken(draft, event.theirs);
    case "take theirs": {
      if (!draft.theirs) return draft;
      const document = settledBy(draft, draft.theirs, "theirs");
      const past = [...draft.past, settledBy(draft, draft.theirs, "mine")];
      return { ...onTheirs(draft, draft.theirs, document), past, future: [], told: null };
    }
    case "keep mine":
      if (!draft.theirs) return draft;
      return { ...onTheirs(draft, draft.theirs, settledBy(draft, draft.theirs, "mine")), told: null };
    case "seen":
      return { ...draft, told: null };
  }
}

/** What this browser keeps of unsaved work, so that a reload loses nothing. */
export interface Kept {
  version: number;
  document: RunDocument;
  /** What was saved as that version; drafts of earlier programs do not have it. */
  base?: RunDocument;
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
      const { version, document, base, sent } = draft;
      const kept: Kept = { version, document, base, sent };
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

/** The steps back and forth, kept as long as the browser's tab: leaving the view and reloading do not lose them. */
export type History = Pick<Draft, "past" | "future" | "base">;

const MOST_KEPT_STEPS = 40;
const historyKey = (owner: string, runId: number): string => `crelda.steps.${owner}.${runId}`;

export function readHistory(owner: string, runId: number): History | null {
  try {
    const text = sessionStorage.getItem(historyKey(owner, runId));
    return text ? (JSON.parse(text) as History) : null;
  } catch {
    return null;
  }
}

export function keepHistory(owner: string, runId: number, { past, future, base }: History): void {
  const history: History = {
    past: past.slice(-MOST_KEPT_STEPS),
    future: future.slice(0, MOST_KEPT_STEPS),
    base,
  };
  try {
    sessionStorage.setItem(historyKey(owner, runId), JSON.stringify(history));
  } catch {
    // Without room there are no steps back after a reload; the run itself is saved.
  }
}
