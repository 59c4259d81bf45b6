import { useState } from "react";
import { ApiError } from "@/api/client";
import { useTakePlan } from "@/api/queries";
import type { CutChoice, CutKind, Cutting, ListedSource } from "@/api/types";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { CutBar, type DrawnBar } from "./cut-bar";
import { compared, counted, total } from "./totals";
import { WhatIf } from "./what-if";

interface Props {
  jobId: number;
  cutting: Cutting;
  proposal: NonNullable<Cutting["proposal"]>;
  planning: boolean;
  error: Error | null;
  onPlan: (terms: Record<string, unknown>, seconds?: number) => void;
  mayWrite: boolean;
}

type Goal = "least cost" | "fewest sticks" | "fewest couplings";
const GOALS: { value: Goal; label: string }[] = [
  { value: "least cost", label: "Least cost" },
  { value: "fewest sticks", label: "Fewest sticks" },
  { value: "fewest couplings", label: "Fewest couplings" },
];
const LONGER = 10;

const nameOf = (kind: CutKind) => `${kind.trade_size} ${kind.material}`;

/** A plan that may be taken: its goal, what might be tried, choices, and each source with its cuts. */
export function PlanView({ jobId, cutting, proposal, planning, error, onPlan, mayWrite }: Props) {
  const take = useTakePlan(jobId);
  const [trying, setTrying] = useState(false);
  const [before, setBefore] = useState<ReturnType<typeof total> | null>(null);
  const [picks, setPicks] = useState<{ digest: string; of: Record<string, number> }>({ digest: "", of: {} });
  const picked = picks.digest === proposal.digest ? picks.of : {};
  const choiceOf = (kind: CutKind) => picked[nameOf(kind)] ?? kind.chosen;
  const now = total(proposal.found.kinds.flatMap((kind) => kind.choices[choiceOf(kind)] ?? []));
  const terms = cutting.terms;
  return (
    <div className={planning ? "opacity-60" : ""}>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Segments
          label="Goal"
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
          What if …
        </Button>
        <Button disabled={planning} onClick={() => onPlan({ ...terms }, LONGER)}>
          Look longer
        </Button>
        {mayWrite && now.cuts > 0 && (
          <Button
            look="main"
            className="ml-auto"
            disabled={planning || take.isPending}
            onClick={() => take.mutate({ digest: proposal.digest, picks: picked })}
          >
            Reserve and cut this
          </Button>
        )}
      </div>
      <p className="tape mt-2 text-lg">
        <strong>{counted(now.sticks, "new stick")}</strong>, {counted(now.couplings, "coupling")},{" "}
        {now.waste ? `${now.wasteReads} waste` : "no waste"}. Each cut takes {proposal.found.kerf.reads}.
        {before && <span className="text-soft"> {compared(before, now)}</span>}
      </p>
      {take.error && (
        <div className="mt-2">
          <Notice severity="stop">{take.error.message}</Notice>
        </div>
      )}
      {trying && (
        <WhatIf
          terms={terms}
          kinds={proposal.found.kinds}
          wrong={error instanceof ApiError ? error.places : {}}
          onPlan={onPlan}
        />
      )}
      {proposal.found.kinds.map((kind) => (
        <KindPlan
          key={nameOf(kind)}
          kind={kind}
          at={choiceOf(kind)}
          trying={trying}
          onPick={(at) => setPicks({ digest: proposal.digest, of: { ...picked, [nameOf(kind)]: at } })}
          onTry={(more) => onPlan({ ...terms, ...more(terms) })}
        />
      ))}
    </div>
  );
}

type More = (terms: Cutting["terms"]) => Partial<Cutting["terms"]>;

interface KindProps {
  kind: CutKind;
  at: number;
  trying: boolean;
  onPick: (at: number) => void;
  onTry: (more: More) => void;
}

function KindPlan({ kind, at, trying, onPick, onTry }: KindProps) {
  const choice = kind.choices[at];
  if (!choice) return null;
  const longest = Math.max(1, ...choice.sources.map((source) => source.length.inches));
  return (
    <section aria-label={`${nameOf(kind)} plan`} className="mt-4 border-t border-line pt-2">
      <h3 className="tape text-xl font-bold">
        {nameOf(kind)} <span className="font-normal">{choice.says}</span>
      </h3>
      <p className="tape text-[15px] text-soft">
        {counted(choice.couplings, "coupling")}, none does with fewer than {kind.couplings_at_least}.{" "}
        {kind.priced ? "Cost" : "Cost in sticks"} {choice.cost.toFixed(2)}, at least{" "}
        {Math.min(kind.cost_at_least, choice.cost).toFixed(2)}.
      </p>
      {kind.choices.length > 1 && (
        <div className="mt-1.5 flex flex-wrap items-center gap-2">
          <span className="text-soft">Sticks against couplings:</span>
          <Segments
            label={`Choices for ${nameOf(kind)}`}
            value={String(at)}
            choices={kind.choices.map((one, index) => ({ value: String(index), label: tradeOff(one) }))}
            onChoose={(value) => onPick(Number(value))}
          />
        </div>
      )}
      {choice.sources.map((source, at) => (
        <CutBar key={source.key} bar={drawn(source, newBefore(choice.sources, at))} longest={longest}>
          {trying && source.scrap && (
            <Button
              look="quiet"
              onClick={() =>
                onTry((terms) => ({ excluded: [...(terms.excluded ?? []), source.scrap ?? ""] }))
              }
            >
              Leave {source.scrap} out
            </Button>
          )}
          {trying &&
            source.cuts.map((cut) => (
              <Button
                key={cut.run + cut.piece}
                look="quiet"
                onClick={() =>
                  onTry((terms) => ({
                    pieces: [
                      ...(terms.pieces ?? []),
                      {
                        run: cut.run,
                        start: cut.from_coupling / 16,
                        end: cut.to_coupling / 16,
                        scrap: source.scrap,
                      },
                    ],
                  }))
                }
              >
                Hold {cut.run_name} {cut.piece} here
              </Button>
            ))}
        </CutBar>
      ))}
    </section>
  );
}

const tradeOff = (choice: CutChoice) => (
  <span className="tape">
    {counted(choice.sticks, "stick")}, {counted(choice.couplings, "coupling")}
  </span>
);

const newBefore = (sources: ListedSource[], at: number) =>
  sources.slice(0, at).filter((source) => !source.scrap && !source.bought).length;

function drawn(source: ListedSource, number: number): DrawnBar {
  const threads = source.threads ? `, ${counted(source.threads, "end")} to thread` : "";
  const from = source.begin === "B" ? ", begin at its end B" : "";
  return {
    name: source.scrap ?? source.bought ?? `New stick ${number + 1}`,
    about: `${source.place ? `, ${source.place}` : ""}${from}${threads}`,
    length: source.length,
    cuts: source.cuts.map((cut) => ({ key: `${cut.run}.${cut.piece}`, ...cut })),
    left: source.keep
      ? `${source.left.reads} to the rack`
      : source.left.inches > 0
        ? `${source.left.reads} waste`
        : "",
  };
}
