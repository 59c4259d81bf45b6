import { beforeEach, describe, expect, it } from "vitest";
import type { Run, RunDocument } from "@/api/types";
import { type Draft, type DraftEvent, draftReducer, forget, keep, openDraft, readKept } from "./draft";

const named = (name: string): RunDocument => ({
  name,
  trade_size: "3/4",
  start: { heading: "up" },
  steps: [],
  end: { at: "" },
});

const run = (name: string, version = 1): Run => ({
  id: 7,
  job_id: 1,
  job_name: "Shed",
  version,
  saved_at: "2026-01-01T00:00:00Z",
  saved_by: "Marek",
  document: named(name),
  note: "",
  assigned: null,
  photos: [],
});

const following = (draft: Draft, ...events: DraftEvent[]): Draft => events.reduce(draftReducer, draft);
const edit = (name: string, place = ""): DraftEvent => ({ type: "edit", document: named(name), place });
const fresh = () => openDraft(run("a"), null);

describe("editing", () => {
  it("is unsaved until that very document is saved", () => {
    const typing = following(fresh(), edit("ab"), { type: "saving" }, edit("abc"));
    expect(typing.saving).toBe("unsaved");
    const early = following(typing, { type: "saved", version: 2, document: named("ab") });
    expect([early.saving, early.version]).toEqual(["unsaved", 2]);
    expect(following(early, { type: "saved", version: 3, document: named("abc") }).saving).toBe("saved");
  });

  it("undoes letters of one field together, and other edits one by one", () => {
    const draft = following(fresh(), edit("b", "end.at"), edit("bc", "end.at"), edit("d"), edit("e"));
    expect(following(draft, { type: "undo" }).document.name).toBe("d");
    expect(following(draft, { type: "undo" }, { type: "undo" }).document.name).toBe("bc");
    expect(following(draft, { type: "undo" }, { type: "undo" }, { type: "undo" }).document.name).toBe("a");
  });

  it("redoes until something new is typed", () => {
    const back = following(fresh(), edit("b"), { type: "undo" });
    expect(following(back, { type: "redo" }).document.name).toBe("b");
    expect(following(back, edit("c"), { type: "redo" }).document.name).toBe("c");
    expect(following(fresh(), { type: "undo" })).toEqual(fresh());
  });
});

describe("a conflict", () => {
  const stale = following(
    fresh(),
    edit("mine"),
    { type: "saving" },
    { type: "stale", theirs: run("theirs", 5) },
  );

  it("keeps mine on the screen and saves nothing by itself", () => {
    expect([stale.saving, stale.document.name]).toEqual(["stale", "mine"]);
    expect(following(stale, edit("mine too")).saving).toBe("stale");
  });

  it("takes theirs so that mine can be had back", () => {
    const theirs = following(stale, { type: "take theirs" });
    expect([theirs.document.name, theirs.version, theirs.saving]).toEqual(["theirs", 5, "saved"]);
    expect(following(theirs, { type: "undo" }).document.name).toBe("mine");
  });

  it("or saves mine above theirs", () => {
    const mine = following(stale, { type: "keep mine" });
    expect([mine.document.name, mine.version, mine.saving]).toEqual(["mine", 5, "unsaved"]);
  });

  it("is none with one's own save from another window where nothing waits here", () => {
    const shown = following(fresh(), { type: "stale", theirs: run("elsewhere", 5) });
    expect([shown.document.name, shown.version, shown.saving]).toEqual(["elsewhere", 5, "saved"]);
  });

  it("is none when what came back is what we sent, its reply lost", () => {
    const sent = following(fresh(), edit("mine"), { type: "saving" }, { type: "unreachable" }, edit("mine!"));
    const told = following(sent, { type: "stale", theirs: run("mine", 2) });
    expect([told.saving, told.version, told.document.name]).toEqual(["unsaved", 2, "mine!"]);
  });
});

describe("another's change of other figures", () => {
  const theirs = { ...run("a", 2), document: { ...named("a"), end: { at: "35" } } };
  const typing = following(fresh(), edit("b"), edit("c"), { type: "stale", theirs });

  it("is put together with mine, and saved from theirs on", () => {
    expect([typing.document.name, typing.document.end.at]).toEqual(["c", "35"]);
    expect([typing.saving, typing.version, typing.told?.by]).toEqual(["unsaved", 2, "Marek"]);
  });

  it("is not undone with mine", () => {
    const back = following(typing, { type: "undo" }, { type: "undo" });
    expect([back.document.name, back.document.end.at]).toEqual(["a", "35"]);
  });

  it("is told with what it changed, without what was saved here meanwhile, until it is seen", () => {
    const told = following(
      typing,
      { type: "saving" },
      { type: "saved", version: 3, document: typing.document },
    ).told;
    expect([told?.before.name, told?.before.end.at, told?.after.end.at]).toEqual(["c", "", "35"]);
    expect(following(typing, { type: "seen" }).told).toBeNull();
  });

  it("stays where only one figure is asked about", () => {
    const both = { ...theirs, document: { ...theirs.document, name: "z" } };
    const asked = following(fresh(), edit("mine"), { type: "stale", theirs: both });
    expect(asked.saving).toBe("stale");
    for (const [type, name] of [
      ["keep mine", "mine"],
      ["take theirs", "z"],
    ] as const) {
      const settled = following(asked, { type });
      expect([settled.document.name, settled.document.end.at, settled.version]).toEqual([name, "35", 2]);
    }
  });

  it("is found where the run is opened again with what was not saved, and its steps back", () => {
    const kept = { version: 1, document: named("c"), base: named("a"), sent: null };
    const history = { past: [named("a"), named("b")], future: [], base: named("a") };
    const opened = openDraft(theirs, kept, history);
    expect([opened.document.name, opened.document.end.at, opened.saving]).toEqual(["c", "35", "unsaved"]);
    expect(following(opened, { type: "undo" }).document).toEqual({ ...named("b"), end: { at: "35" } });
  });
});

describe("a reload", () => {
  beforeEach(() => {
    const kept = new Map<string, string>();
    globalThis.localStorage = {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    } as unknown as Storage;
  });

  it("brings back what was not saved", () => {
    keep("1.2", 7, following(fresh(), edit("typed")));
    const reopened = openDraft(run("a"), readKept("1.2", 7));
    expect([reopened.document.name, reopened.saving]).toEqual(["typed", "unsaved"]);
  });

  it("tells when somebody saved in between", () => {
    keep("1.2", 7, following(fresh(), edit("typed")));
    const reopened = openDraft(run("theirs", 2), readKept("1.2", 7));
    expect([reopened.document.name, reopened.saving, reopened.theirs?.version]).toEqual([
      "typed",
      "stale",
      2,
    ]);
  });

  it("keeps mine of a draft that an earlier program kept, where that is chosen", () => {
    const asked = openDraft(run("theirs", 2), { version: 1, document: named("typed"), sent: null });
    expect([asked.saving, asked.document.name]).toEqual(["stale", "typed"]);
    expect(following(asked, { type: "keep mine" }).document.name).toBe("typed");
    expect(following(asked, { type: "take theirs" }).document.name).toBe("theirs");
  });

  it("knows a save of ours whose reply never came", () => {
    keep("1.2", 7, following(fresh(), edit("typed"), { type: "saving" }, edit("typed on")));
    const reopened = openDraft(run("typed", 2), readKept("1.2", 7));
    expect([reopened.document.name, reopened.saving, reopened.version]).toEqual(["typed on", "unsaved", 2]);
  });

  it("forgets what is saved, and not what was typed since", () => {
    keep("1.2", 7, following(fresh(), edit("typed on")));
    forget("1.2", 7, run("typed", 2).document);
    expect(readKept("1.2", 7)?.document.name).toBe("typed on");
    forget("1.2", 7, run("typed on", 3).document);
    expect(readKept("1.2", 7)).toBeNull();
  });

  it("keeps nothing of what is saved", () => {
    keep("1.2", 7, following(fresh(), edit("typed")));
    keep("1.2", 7, fresh());
    expect(readKept("1.2", 7)).toBeNull();
    localStorage.setItem("crelda.run.7", "{");
    expect(readKept("1.2", 7)).toBeNull();
  });
});
