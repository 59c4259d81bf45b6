import { type Dispatch, type SetStateAction, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link, Navigate, Outlet, useNavigate, useParams, useSearchParams } from "react-router";
import { api, reply } from "@/api/client";
import { isBegunHere } from "@/api/own-numbers";
import { useMe, useNewest, useRun } from "@/api/queries";
import type { MarksJudged, Run, RunDocument } from "@/api/types";
import { DeviceLine } from "@/devices/device-line";
import { runTabs } from "@/shell/pages";
import { useSentFromHere } from "@/shell/sent-from-here";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { GoodIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { TapeContext } from "@/ui/tape-field";
import { t } from "@/words/layout";
import { Compared } from "./compared";
import { type Draft, type DraftEvent, type Saving, settledBy, type Told } from "./draft";
import { followed } from "./merge";
import {
  type Focus,
  FocusContext,
  isSide,
  LaidContext,
  type LaidMarks,
  PlanContext,
  type Planned,
  type Side,
  WorkContext,
} from "./run-context";
import { UnderChange } from "./under-change";
import { useAmongOthers } from "./use-among-others";
import { useDraft } from "./use-draft";
import { usePlan, useRackPlan, useRemedies } from "./use-plan";

export function RunPage() {
  const runId = Number(useParams().runId);
  const run = useRun(runId);
  if (run.error) {
    return (
      <Shell title={t("run")}>
        <main className="p-8">
          <Notice severity="stop">
            {t("open.failed", { message: run.error.message })} <Link to="/">{t("open.all_jobs")}</Link>
          </Notice>
        </main>
      </Shell>
    );
  }
  // What another view kept of the run may be older than what was saved last: the draft is made of what comes now.
  if (!run.data || !run.isFetchedAfterMount) return <Shell title={t("run")}>{null}</Shell>;
  if (run.data.id !== runId) return <Navigate to={`/runs/${run.data.id}/layout`} replace />;
  return <OpenRun key={run.data.id} run={run.data} />;
}

function OpenRun({ run }: { run: Run }) {
  const handle = useDraft(run);
  const { draft, send } = handle;
  const live = usePlan(draft.document);
  const racked = useRackPlan(draft.document);
  const me = useMe();
  const [chosen, choose] = useStepInAddress();
  const [side, open] = useSideInAddress();
  const [laid, setLaid] = useState<LaidMarks | null>(null);
  const [judged, setJudged] = useState<MarksJudged | null>(null);
  useOthersSaves(run.id, draft, send);
  useSentFromHere(run.id, draft.saving === "saved", useOpened());
  useStepKept(draft, choose);
  useFollowing(run, draft, send);
  const { edit } = handle;
  const { ask } = live;
  const { ask: askRack } = racked;
  const editAndAsk = useCallback(
    (document: RunDocument, place: string) => {
      ask(document);
      if (document.rack) askRack(document);
      edit(document, place);
    },
    [ask, askRack, edit],
  );
  const { document, past, future } = draft;
  // A rack's pipe is changed in its lead.
  const mayWrite = me.data?.role !== "viewer" && !run.rack;
  const { got, error: planError } = live;
  const plan = useAmongOthers(run, document, useRemedies(document, got));
  const rack = document.rack ? racked.got : undefined;
  const work = useMemo(
    (): WorkContext => ({ draft: { document, past, future }, edit: editAndAsk, send, run, mayWrite }),
    [document, past, future, editAndAsk, send, run, mayWrite],
  );
  const planned = useMemo((): Planned => ({ plan, rack, planError }), [plan, rack, planError]);
  const focus = useMemo((): Focus => ({ chosen, choose, side, open }), [chosen, choose, side, open]);
  const marks = useMemo((): LaidContext => ({ laid, setLaid, judged, setJudged }), [laid, judged]);
  return (
    <Shell
      title={t("title", { document: draft.document.name || t("run") })}
      trail={
        <>
          <span className="max-sm:hidden">{run.job_name} / </span>
          <strong className="text-ink">{draft.document.name || t("run.unnamed")}</strong>
        </>
      }
      tabs={runTabs(run.id, run.job_id)}
      state={<SavingState saving={draft.saving} isHere={isBegunHere(run.id)} />}
    >
      {draft.saving === "stale" && draft.theirs && <Stale draft={draft} theirs={draft.theirs} send={send} />}
      {draft.told && draft.told.by !== me.data?.name && <ChangedByOther told={draft.told} send={send} />}
      {draft.saving === "refused" && (
        <div className="border-b border-stop bg-paper px-4 py-2">
          <Notice severity="stop">{t("save.refused", { refusal: draft.refusal })}</Notice>
        </div>
      )}
      {run.rack && <FollowsLead place={run.rack} />}
      <UnderChange run={run} document={draft.document} />
      <DeviceLine />
      <TapeContext value={draft.document.tape ?? "1/16"}>
        <WorkContext value={work}>
          <PlanContext value={planned}>
            <FocusContext value={focus}>
              <LaidContext value={marks}>
                <Outlet />
              </LaidContext>
            </FocusContext>
          </PlanContext>
        </WorkContext>
      </TapeContext>
    </Shell>
  );
}

type Choose = Dispatch<SetStateAction<number | null>>;

/** Where another's change puts steps in or takes some out, the same step stays chosen. */
function useStepKept({ told, document: { steps } }: Draft, choose: Choose) {
  const last = useRef({ steps, told });
  useEffect(() => {
    const before = last.current;
    last.current = { steps, told };
    if (told && before.told !== told)
      choose((at) => (at === null ? null : followed(before.steps, steps, at)));
  }, [steps, told, choose]);
}

/** The step that the address names is chosen at first. */
function useStepInAddress() {
  const step = Number(useSearchParams()[0].get("step"));
  const named = Number.isInteger(step) && step > 0 ? step - 1 : null;
  const [chosen, choose] = useState<number | null>(named);
  useEffect(() => {
    if (named !== null) choose(named);
  }, [named]);
  return [chosen, choose] as const;
}

/** What lies open beside the list stands in the address, so that a link leads there and back closes it. */
function useSideInAddress() {
  const [search, setSearch] = useSearchParams();
  const named = search.get("beside");
  const open = useCallback(
    (next: Side) =>
      setSearch((before) => {
        before.delete("beside");
        if (next) before.set("beside", next);
        return before;
      }),
    [setSearch],
  );
  return [isSide(named) ? named : null, open] as const;
}

/** A pipe of a rack is looked at here; what it follows is changed where it is measured. */
function FollowsLead({ place }: { place: NonNullable<Run["rack"]> }) {
  return (
    <div className="border-b border-line bg-paper px-4 py-2">
      <Notice severity="note">
        {t("racked.which", { place: place.number })}{" "}
        <Link to={`/runs/${place.lead_id}`} className="font-semibold underline">
          {place.lead_name || t("racked.lead")}
        </Link>
        {t("racked.change_there")}
      </Notice>
    </div>
  );
}

/** Looks every few seconds whether somebody, or oneself in another window, saved this run: it is shown as it then is. */
function useOthersSaves(runId: number, draft: Draft, send: (event: DraftEvent) => void) {
  const newest = useNewest(runId).data;
  const overtaken = draft.saving === "saved" && newest !== undefined && newest.version > draft.version;
  useEffect(() => {
    if (!overtaken) return;
    let dropped = false;
    reply(api.GET("/api/runs/{run_id}", { params: { path: { run_id: runId } } }))
      .then((theirs) => dropped || send({ type: "stale", theirs }))
      .catch(() => undefined);
    return () => {
      dropped = true;
    };
  }, [overtaken, runId, send]);
}

/** Opens the layout of a run in the place of this one. */
function useOpened() {
  const navigate = useNavigate();
  return useCallback((id: number) => navigate(`/runs/${id}/layout`, { replace: true }), [navigate]);
}

/** A pipe of a rack is not changed here: what its lead saved is shown as it comes. */
function useFollowing(run: Run, draft: Draft, send: (event: DraftEvent) => void) {
  const follows = run.rack !== null && run.rack !== undefined && draft.saving === "stale";
  useEffect(() => {
    if (follows) send({ type: "take theirs" });
  }, [follows, send]);
}

/** What somebody else changed, put together with what is typed here; it stays until it is seen. */
function ChangedByOther({ told, send }: { told: Told; send: (event: DraftEvent) => void }) {
  return (
    <section
      aria-label={t("versions.other")}
      className="flex flex-wrap items-start gap-x-3 border-b border-line bg-paper px-4 py-1.5"
    >
      <details className="min-w-0 flex-1">
        <summary className="min-h-9 cursor-pointer py-1.5">
          <strong>{t("versions.changed_by", { saved_by: told.by })}</strong>{" "}
          <span className="underline">{t("versions.what")}</span>
        </summary>
        <Compared mine={told.before} theirs={told.after} names={[t("compare.before"), t("compare.now")]} />
      </details>
      <Button onClick={() => send({ type: "seen" })}>{t("versions.ok")}</Button>
    </section>
  );
}

/** Both changed the same figures: whose stand is asked; what only one of them changed is put together already. */
function Stale({ draft, theirs, send }: { draft: Draft; theirs: Run; send: (event: DraftEvent) => void }) {
  return (
    <section
      aria-label={t("versions.title")}
      className="flex flex-col gap-2 border-b-2 border-caution bg-paper px-4 py-2"
    >
      <div className="flex flex-wrap items-center gap-3">
        <Notice severity="caution">
          <strong>{t("versions.changed_by", { saved_by: theirs.saved_by })}</strong>{" "}
          {t("versions.still_here")}
        </Notice>
        <span className="ml-auto flex gap-2">
          <Button onClick={() => send({ type: "take theirs" })}>
            {t("versions.use_theirs", { saved_by: theirs.saved_by })}
          </Button>
          <Button look="main" onClick={() => send({ type: "keep mine" })}>
            {t("versions.keep_mine")}
          </Button>
        </span>
      </div>
      <Compared
        mine={settledBy(draft, theirs, "mine")}
        theirs={settledBy(draft, theirs, "theirs")}
        names={[t("versions.mine"), `${theirs.saved_by}’s`]}
      />
    </section>
  );
}

const STATES: Record<Saving, string> = {
  saved: t("save.saved"),
  unsaved: t("save.saving"),
  saving: t("save.saving"),
  unreachable: t("save.unreachable"),
  stale: t("save.not_saved"),
  refused: t("save.not_saved"),
};

const SAID_FOR = 2500;

/** How it stands with the server; said in full to those who ask by the usual key. */
function SavingState({ saving, isHere }: { saving: Saving; isHere: boolean }) {
  const [asked, setAsked] = useState(0);
  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "s") return;
      event.preventDefault();
      setAsked(Date.now());
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  useEffect(() => {
    if (!asked) return;
    const timer = setTimeout(() => setAsked(0), SAID_FOR);
    return () => clearTimeout(timer);
  }, [asked]);
  return (
    <span role="status" aria-live="polite" className="flex items-center gap-1 text-[15px] text-soft">
      {saving === "saved" && <GoodIcon width={18} height={18} className="text-good" />}
      <span className={saving === "saved" ? "max-sm:sr-only" : ""}>
        {isHere && saving === "saved" ? t("save.here") : STATES[saving]}
      </span>
      {asked > 0 && saving === "saved" && t("save.as_you_type")}
    </span>
  );
}
