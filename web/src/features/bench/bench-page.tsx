import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { Link, useLocation, useNavigate, useParams, useSearchParams } from "react-router";
import { core } from "@/api/core/keeping";
import { keys, useMe } from "@/api/queries";
import type { Bench } from "@/api/types";
import { useReach } from "@/api/use-reach";
import { actInWords } from "@/outbox/act-in-words";
import { RefusedActs, Sending } from "@/outbox/unsent";
import { runTabs } from "@/shell/pages";
import { useSentFromHere } from "@/shell/sent-from-here";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { InSlices } from "@/ui/in-slices";
import { Notice } from "@/ui/notice";
import { TapeContext } from "@/ui/tape-field";
import { t } from "@/words/bench";
import { chosenLanguage } from "@/words/language";
import { arrangedOf, type Queue, waitingOn } from "./acts-queue";
import { type BenchContext, BenchProvider } from "./bench-context";
import { BendScreen } from "./bend-screen";
import { CutScreen } from "./cut-screen";
import { FitScreen } from "./fit-screen";
import { BenchPrint } from "./print";
import { StepBar } from "./step-bar";
import { StickRail } from "./stick-rail";
import { type At, goesOnAt } from "./stick-steps";
import { type Acts, useActs } from "./use-acts";
import { useAwake } from "./use-awake";
import { type BenchShown, useBenchShown } from "./use-bench-shown";

/** Mark and bend: one bend a screen, readable at arm's length, with or without a network. */
export function BenchPage() {
  const runId = Number(useParams().runId);
  const { queue } = useActs(runId, undefined);
  const shown = useBenchShown(runId, queue);
  const acts = useActs(runId, shown.bench?.version);
  const was = useMoved(runId, shown);
  useAwake();
  if (!shown.bench) return <NoBench shown={shown} />;
  return <OpenBench key={was} bench={shown.bench} shown={shown} acts={acts} />;
}

/** A run begun here has another number once it is sent; what is typed meanwhile stays. Gives by which it was opened. */
function useMoved(runId: number, { bench, movedTo }: BenchShown): number {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { pathname, search, state } = useLocation();
  const was: number = state?.was ?? runId;
  const goTo = useCallback(
    (id: number) => {
      // Until the server has answered it is as it was.
      if (bench) queries.setQueryData(keys.bench(id), { ...bench, run_id: id });
      navigate(pathname.replace(String(runId), String(id)) + search, { replace: true, state: { was } });
    },
    [bench, pathname, search, runId, was, navigate, queries],
  );
  useSentFromHere(runId, true, goTo);
  useEffect(() => {
    if (movedTo) goTo(movedTo);
  }, [movedTo, goTo]);
  return was;
}

/** It is asked for, or nobody can say: why, and what to do. */
function NoBench({ shown: { error, isAsked } }: { shown: BenchShown }) {
  const reach = useReach();
  const { state } = useSyncExternalStore(core.subscribe, core.snapshot);
  return (
    <Shell title={t("bench")}>
      <main lang={chosenLanguage()} className="p-8">
        {error ? (
          <Notice severity="stop">{t("open.failed", { message: error.message })}</Notice>
        ) : (
          state === "here" && isAsked && !reach && <p role="status">{t("open.made_here")}</p>
        )}
        {!reach && state !== "here" && (
          <Notice severity="stop">
            {t("open.no_network")} <Link to="/devices">{t("open.fetch_core")}</Link>{" "}
            <Link to="/">{t("open.all_jobs")}</Link>
          </Notice>
        )}
      </main>
    </Shell>
  );
}

function OpenBench({ bench, shown, acts }: { bench: Bench; shown: BenchShown; acts: Acts }) {
  const stick = useStick(bench);
  return (
    <Shell
      title={t("title", { bench: bench.name || t("card.run") })}
      trail={
        <>
          <span className="max-sm:hidden">{bench.job_name} / </span>
          <strong className="text-ink">{bench.name || t("run.unnamed")}</strong>
        </>
      }
      tabs={runTabs(bench.run_id, bench.job_id)}
      state={<Sending />}
    >
      <RefusedActs runId={bench.run_id} />
      <NotDone shown={shown} acts={acts} />
      {stick ? (
        <OneStick
          key={stick.sheet.piece}
          bench={bench}
          stick={stick}
          uncounted={shown.uncounted}
          acts={acts}
        />
      ) : (
        <NothingToBend bench={bench} />
      )}
    </Shell>
  );
}

/** What was entered without a network and cannot be done, as this device finds; the server says it once it is asked. */
function NotDone({ shown: { notDone }, acts }: { shown: BenchShown; acts: Acts }) {
  return notDone.map(({ key, says }) => {
    const act = acts.queue.find((one) => one.key === key);
    return (
      act && (
        <div key={key} className="border-b border-stop bg-paper px-4 py-2 print:hidden">
          <Notice severity="stop">
            <strong>{t("not_done", { act: actInWords(act) })}</strong> {says}
          </Notice>
        </div>
      )
    );
  });
}

/** The stick in the address, or the first that was not fitted when the bench was opened. */
function useStick(bench: Bench) {
  const [opened] = useState(
    () => bench.sticks.find((stick) => !stick.fitted_at)?.sheet.piece ?? bench.sticks[0]?.sheet.piece,
  );
  const piece = Number(useParams().piece ?? opened);
  return bench.sticks.find((stick) => stick.sheet.piece === piece) ?? bench.sticks[0];
}

interface OneStickProps {
  bench: Bench;
  stick: Bench["sticks"][number];
  uncounted: Queue;
  acts: Acts;
}

function OneStick({ bench, stick, uncounted, acts }: OneStickProps) {
  const me = useMe();
  const reach = useReach();
  const { piece } = stick.sheet;
  const waiting = useMemo(() => waitingOn(uncounted, piece), [uncounted, piece]);
  const [at, go] = useScreen(stick, goesOnAt(stick, waiting));
  const [burnt, setBurnt] = useState(() => localStorage.getItem(BURNT) === "1");
  const [references, setReferences] = useState<Record<string, string>>({});
  const [dials, setDials] = useState<Record<string, number>>({});
  const { act } = acts;
  const context: BenchContext = {
    bench,
    stick,
    mayWrite: me.data?.role !== "viewer",
    offline: acts.offline || !reach,
    waiting,
    refused: acts.refused,
    at,
    go,
    act,
    arrange: (change) =>
      act({ kind: "arrange", piece, arranged: { ...arrangedOf(stick, acts.queue), ...change } }),
    burnt,
    setBurnt: (next) => {
      localStorage.setItem(BURNT, next ? "1" : "0");
      setBurnt(next);
    },
    markOf: (bend) => {
      const reference = references[`${piece}.${bend.number}`];
      const chosen = bend.marks.find((mark) => mark.reference === reference && mark.hook === bend.use.hook);
      return chosen ?? bend.use;
    },
    dialOf: (bend) => dials[`${piece}.${bend.number}`],
    setDial: (bend, dial) => setDials(withDial(dials, `${piece}.${bend}`, dial)),
    setReference: (bend, reference) => setReferences({ ...references, [`${piece}.${bend}`]: reference }),
  };
  const bend = stick.sheet.bends.find((one) => one.number === at);
  return (
    <TapeContext value={bench.document.tape ?? "1/16"}>
      <BenchProvider value={context}>
        <main lang={chosenLanguage()} className="flex flex-1 flex-col print:hidden lg:flex-row">
          <div className="border-line bg-paper max-lg:hidden lg:w-[21rem] lg:shrink-0 lg:border-r">
            <InSlices>
              <StickRail />
            </InSlices>
          </div>
          <div className="flex min-w-0 flex-1 flex-col px-4 pt-2 pb-24 lg:px-6 lg:pb-0">
            <h1 className="sr-only lg:hidden">{t("bench")}</h1>
            <OldCard stick={stick} />
            {stick.stale && (
              <Notice severity="caution">
                <strong>{stick.stale}</strong>{" "}
                <Link to={`/runs/${bench.run_id}/layout`} className="underline">
                  {t("piece.run_now")}
                </Link>
              </Notice>
            )}
            <StepBar />
            {bend ? (
              <BendScreen key={bend.number} bend={bend} />
            ) : at === "fit" ? (
              <FitScreen />
            ) : (
              <CutScreen />
            )}
          </div>
        </main>
        <InSlices>
          <BenchPrint />
        </InSlices>
      </BenchProvider>
    </TapeContext>
  );
}

/** Whoever came by a printed card's code is told where that card is no longer right. */
function OldCard({ stick }: { stick: Bench["sticks"][number] }) {
  const card = useSearchParams()[0].get("card");
  if (!card || card === stick.card) return null;
  return (
    <Notice severity="stop">
      <strong>{t("card.old", { card })}</strong> {t("card.old.says", { card: stick.card })}
    </Notice>
  );
}

/** The dials that were set otherwise than the sheet says, with one more, or without it. */
function withDial(dials: Record<string, number>, key: string, dial: number | null): Record<string, number> {
  const { [key]: _, ...others } = dials;
  return dial === null ? others : { ...others, [key]: dial };
}

const BURNT = "crelda.burnt";

/** The screen in the address; where work goes on until one is chosen. */
function useScreen(stick: Bench["sticks"][number], goesOn: At): [At, (at: At) => void] {
  const [search, setSearch] = useSearchParams();
  const [first] = useState(goesOn);
  const asked = search.get("at") ?? "";
  const screens: At[] = ["cut", ...stick.sheet.bends.map((bend) => bend.number), "fit"];
  const at = screens.find((screen) => String(screen) === asked) ?? first;
  const go = useCallback(
    (next: At) => {
      setSearch(
        (before) => {
          before.set("at", String(next));
          return before;
        },
        { replace: true },
      );
      window.scrollTo({ top: 0 });
    },
    [setSearch],
  );
  return [at, go];
}

function NothingToBend({ bench }: { bench: Bench }) {
  const navigate = useNavigate();
  const stop = bench.findings.find((finding) => finding.severity === "stop");
  return (
    <main lang={chosenLanguage()} className="mx-auto max-w-xl p-8 text-lg">
      <h1 className="mb-3 text-2xl font-bold">{t("open.nothing")}</h1>
      {stop && (
        <Notice severity="stop">
          {stop.says} {stop.remedy}
        </Notice>
      )}
      <Button className="mt-4 min-h-12" onClick={() => navigate(`/runs/${bench.run_id}/layout`)}>
        {t("open.to_layout")}
      </Button>
    </main>
  );
}
