import { useCallback, useMemo, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { useBench, useMe } from "@/api/queries";
import type { Bench } from "@/api/types";
import { RefusedActs, Sending } from "@/outbox/unsent";
import { runTabs } from "@/shell/pages";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { InSlices } from "@/ui/in-slices";
import { Notice } from "@/ui/notice";
import { TapeContext } from "@/ui/tape-field";
import { t } from "@/words/bench";
import { chosenLanguage } from "@/words/language";
import { arrangedOf, asQueued, waitingOn } from "./acts-queue";
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

/** Mark and bend: one bend a screen, readable at arm's length, with or without a network. */
export function BenchPage() {
  const runId = Number(useParams().runId);
  const bench = useBench(runId);
  const acts = useActs(runId);
  useAwake();
  if (!bench.data)
    return (
      <Shell title={t("bench")}>
        <main lang={chosenLanguage()} className="p-8">
          {bench.error && (
            <Notice severity="stop">{t("open.failed", { message: bench.error.message })}</Notice>
          )}
          {bench.fetchStatus === "paused" && (
            <Notice severity="stop">
              {t("open.no_network")} <Link to="/">{t("open.all_jobs")}</Link>
            </Notice>
          )}
        </main>
      </Shell>
    );
  return <OpenBench key={runId} bench={asQueued(bench.data, acts.queue)} acts={acts} />;
}

function OpenBench({ bench, acts }: { bench: Bench; acts: Acts }) {
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
      {stick ? (
        <OneStick key={stick.sheet.piece} bench={bench} stick={stick} acts={acts} />
      ) : (
        <NothingToBend bench={bench} />
      )}
    </Shell>
  );
}

/** The stick in the address, or the first that was not fitted when the bench was opened. */
function useStick(bench: Bench) {
  const [opened] = useState(
    () => bench.sticks.find((stick) => !stick.fitted_at)?.sheet.piece ?? bench.sticks[0]?.sheet.piece,
  );
  const piece = Number(useParams().piece ?? opened);
  return bench.sticks.find((stick) => stick.sheet.piece === piece) ?? bench.sticks[0];
}

function OneStick({ bench, stick, acts }: { bench: Bench; stick: Bench["sticks"][number]; acts: Acts }) {
  const me = useMe();
  const { piece } = stick.sheet;
  const waiting = useMemo(() => waitingOn(acts.queue, piece), [acts.queue, piece]);
  const [at, go] = useScreen(stick, goesOnAt(stick, waiting));
  const [burnt, setBurnt] = useState(() => localStorage.getItem(BURNT) === "1");
  const [references, setReferences] = useState<Record<string, string>>({});
  const [dials, setDials] = useState<Record<string, number>>({});
  const { act } = acts;
  const context: BenchContext = {
    bench,
    stick,
    mayWrite: me.data?.role !== "viewer",
    offline: acts.offline,
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
