import { useState } from "react";
import { ApiError } from "@/api/client";
import { usePickChoices } from "@/api/cutting";
import type { CutChoice, CutKind, Cutting, ListedSource } from "@/api/types";
import { things } from "@/trade/counts";
import { Button } from "@/ui/button";
import { Segments } from "@/ui/segments";
import { t } from "@/words/stock";
import { nameOf, Sources } from "./sources";
import { StopSettings } from "./stop-settings";
import { compared, total } from "./totals";
import { type More, TryMenu } from "./try-menu";
import { WhatIf } from "./what-if";

interface Props {
  jobId: number;
  cutting: Cutting;
  proposal: NonNullable<Cutting["proposal"]>;
  planning: boolean;
  /** A better plan is looked for; this one may be taken all the same. */
  looking: boolean;
  error: Error | null;
  onPlan: (terms: Record<string, unknown>, seconds?: number) => void;
  onTake: (picks: Picks) => void;
  mayWrite: boolean;
}

type Goal = "least cost" | "fewest sticks" | "fewest couplings";
const GOALS: { value: Goal; label: string }[] = [
  { value: "least cost", label: t("goal.cost") },
  { value: "fewest sticks", label: t("goal.sticks") },
  { value: "fewest couplings", label: t("goal.couplings") },
];
const LONGER = 10;

/** A plan that may be taken: its goal, what might be tried, choices, and each source with its cuts. */
export function PlanView({
  jobId,
  cutting,
  proposal,
  planning,
  looking,
  error,
  onPlan,
  onTake,
  mayWrite,
}: Props) {
  const [trying, setTrying] = useState(false);
  const [before, setBefore] = useState<ReturnType<typeof total> | null>(null);
  const [picked, pick] = usePicked(jobId, proposal, mayWrite);
  const choiceOf = (kind: CutKind) => picked[nameOf(kind)] ?? kind.chosen;
  const chosen = proposal.found.kinds.flatMap((kind) => kind.choices[choiceOf(kind)] ?? []);
  const now = total(chosen, cutting.tape);
  const terms = cutting.terms;
  const begun = cutting.taken.bars.length > 0;
  return (
    <section aria-label={t("plan.do")} className={planning ? "opacity-60" : ""}>
      <h2 className={begun ? "mt-6 border-t border-line pt-3 text-xl font-bold" : "sr-only"}>
        {begun ? t("plan.rest") : t("plan.title")}
      </h2>
      {mayWrite && (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <Segments
            label={t("goal.title")}
            value={terms.goal as Goal}
            choices={GOALS}
            onChoose={(goal) => onPlan({ ...terms, goal })}
          />
          <Button
            aria-expanded={trying}
            onClick={() => {
              setTrying(!trying);
              setBefore(trying ? null : now);
            }}
          >
            {t("what_if.open")}
          </Button>
          <Button disabled={planning || looking} onClick={() => onPlan({ ...terms }, LONGER)}>
            {t("plan.longer")}
          </Button>
        </div>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <p className="tape text-lg">
          <strong>{things(now.sticks, "newStick")}</strong>
          {t("plan.totals", {
            couplings: things(now.couplings, "coupling"),
            detail: now.waste ? t("plan.waste", { length: now.wasteReads }) : t("plan.no_waste"),
            kerf: proposal.found.kerf.reads,
          })}
          {begun && <span className="text-soft"> {t("plan.counts_reserved")}</span>}
          {before && <span className="text-soft"> {compared(before, now, cutting.tape)}</span>}
        </p>
        {mayWrite && now.cuts > 0 && (
          <Button
            look="main"
            data-tour="take"
            className="min-h-11 max-sm:w-full sm:ml-auto"
            disabled={planning}
            onClick={() => onTake(picked)}
          >
            {t("plan.take")}
          </Button>
        )}
      </div>
      {trying && (
        <WhatIf
          jobId={jobId}
          tape={cutting.tape}
          terms={terms}
          usual={cutting.usual}
          kinds={proposal.found.kinds}
          wrong={error instanceof ApiError ? error.places : {}}
          onPlan={onPlan}
        />
      )}
      {proposal.found.crowded && <p className="mt-2">{proposal.found.crowded}</p>}
      {proposal.found.kinds.map((kind) => (
        <KindPlan
          key={nameOf(kind)}
          kind={kind}
          at={choiceOf(kind)}
          trying={trying}
          settled={(source) => isSettled(source, cutting)}
          onPick={(at) => pick({ ...picked, [nameOf(kind)]: at })}
          onTry={(more) => onPlan({ ...terms, ...more(terms) })}
        />
      ))}
    </section>
  );
}

/** Whether all that is cut from a source was reserved before, as it is. */
function isSettled(source: ListedSource, cutting: Cutting): boolean {
  const bar = cutting.taken.bars.find((one) => one.name === (source.scrap ?? source.bought));
  const reserved = new Set(bar?.cuts.filter((cut) => !cut.stale).map((cut) => `${cut.run}.${cut.piece}`));
  return source.cuts.every((cut) => reserved.has(`${cut.run}.${cut.piece}`));
}

type Picks = Record<string, number>;

/** The choices picked: shown at once, and kept for the crew by whoever may write. */
function usePicked(jobId: number, { digest, picks }: Props["proposal"], mayWrite: boolean) {
  const keep = usePickChoices(jobId);
  const [own, setOwn] = useState<{ digest: string; of: Picks } | null>(null);
  const pick = (of: Picks) => {
    setOwn({ digest, of });
    if (mayWrite) keep.mutate({ digest, picks: of }, { onSettled: () => setOwn(null) });
  };
  return [own?.digest === digest ? own.of : picks, pick] as const;
}

interface KindProps {
  kind: CutKind;
  at: number;
  trying: boolean;
  settled: (source: ListedSource) => boolean;
  onPick: (at: number) => void;
  onTry: (more: More) => void;
}

function KindPlan({ kind, at, trying, settled, onPick, onTry }: KindProps) {
  const choice = kind.choices[at];
  if (!choice || kind.choices.every((one) => one.sources.every(settled))) return null;
  return (
    <section
      aria-label={t("plan.of_kind", { kind: nameOf(kind) })}
      className="mt-4 border-t border-line pt-2"
    >
      <h3 className="tape text-xl font-bold">
        {nameOf(kind)} <span className="font-normal">{choice.says}</span>
      </h3>
      <p className="tape text-[15px] text-soft">
        {costOf(choice, kind)} {work(choice)}
        {kind.stayed && ` ${kind.stayed}`}
        {kind.price_says && ` ${kind.price_says}`}
        {kind.looked_at && ` ${kind.looked_at}`}
      </p>
      <StopSettings stop={choice.stop ?? []} />
      {kind.choices.length > 1 && (
        <div className="mt-1.5 flex flex-wrap items-center gap-2">
          <span className="text-soft">{t("choices.title")}</span>
          <Segments
            label={t("choices.label", { kind: nameOf(kind) })}
            value={String(at)}
            choices={kind.choices.map((one, index) => ({ value: String(index), label: tradeOff(one) }))}
            onChoose={(value) => onPick(Number(value))}
          />
        </div>
      )}
      <Sources
        kind={kind}
        sources={choice.sources}
        hidden={settled}
        more={(source) => trying && <TryMenu source={source} places={choice.places} onTry={onTry} />}
      />
    </section>
  );
}

/** What there is to do at the saw. */
function work({ sources }: CutChoice): string {
  const sum = (of: (source: ListedSource) => number) => sources.reduce((all, source) => all + of(source), 0);
  const ream = sum((source) => source.ream);
  return t("plan.ream", {
    sawcuts: things(
      sum((source) => source.saw_cuts),
      "sawCut",
    ),
    ends: things(ream, "end"),
  });
}

/** What it costs, what of it is waste, and how little it might be. */
function costOf({ cost, bill, waste_worth, cheapest }: CutChoice, kind: CutKind): string {
  const figure = cost.toFixed(2);
  const parts =
    bill !== undefined && waste_worth
      ? t("plan.bill", { bill: bill.toFixed(2), waste_worth: waste_worth.toFixed(2) })
      : "";
  const floor = (Math.floor(kind.cost_at_least * 100) / 100).toFixed(2);
  const best = cheapest ? t("plan.none_cheaper") : t("plan.best", { floor });
  return `${t(kind.priced ? "plan.costs" : "plan.costs_sticks", { cost: figure })}${parts}; ${best}`;
}

const tradeOff = (choice: CutChoice) => <span className="tape">{choice.label}</span>;
