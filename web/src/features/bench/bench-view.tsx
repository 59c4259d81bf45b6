import { useState } from "react";
import { useOrders } from "@/api/queries";
import type { BenchBend, Plan, PlannedMark } from "@/api/types";
import { useRunContext } from "@/features/walk/run-context";
import { Button } from "@/ui/button";
import { PrintIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { benchSteps } from "./bench-steps";
import { BendCard } from "./bend-card";
import { BendList } from "./bend-list";
import { BenchPrint } from "./print";

export type Setting = Pick<PlannedMark, "reference" | "hook">;
export type Settings = Record<number, Setting>;

/** The mark that is shown for a bend. */
export type MarkOf = (bend: BenchBend) => PlannedMark;

/** Mark and bend: one bend a screen, readable at arm's length. */
export function BenchView() {
  const { plan } = useRunContext();
  if (!plan) return <main />;
  if (!plan.makeable || !plan.pieces.some((piece) => piece.bends.length))
    return <NothingToBend plan={plan} />;
  return <Bench plan={plan} />;
}

type Sequence = "along" | "proposed";

const SEQUENCES: { value: Sequence; label: string }[] = [
  { value: "along", label: "Along the pipe" },
  { value: "proposed", label: "Proposed order" },
];

function Bench({ plan }: { plan: Plan }) {
  const { draft } = useRunContext();
  const [sequence, setSequence] = useState<Sequence>("along");
  const orders = useOrders(draft.document, sequence === "proposed");
  const proposed = sequence === "proposed" ? orders.data : undefined;
  const steps = benchSteps(plan, proposed);
  const whyNot = proposed?.map((order) => order.why_not).filter(Boolean) ?? [];
  const [at, setAt] = useState(0);
  const [settings, setSettings] = useState<Settings>({});
  const markOf: MarkOf = (bend) => {
    const set = settings[bend.number];
    const chosen = bend.marks.find((mark) => mark.reference === set?.reference && mark.hook === set.hook);
    return chosen ?? steps.find((step) => step.bend === bend)?.use ?? bend.use;
  };
  const current = steps[Math.min(at, steps.length - 1)];
  if (!current) return null;
  const go = (next: number) => setAt(Math.min(Math.max(next, 0), steps.length - 1));
  const choice = (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <Segments
        large
        label="In which order"
        value={sequence}
        choices={SEQUENCES}
        onChoose={(next) => {
          setSequence(next);
          setAt(0);
        }}
      />
      {orders.error && <Notice severity="caution">{orders.error.message}</Notice>}
      {whyNot.map((why) => (
        <Notice key={why} severity="caution">
          {why}
        </Notice>
      ))}
    </div>
  );
  return (
    <>
      <main className="flex flex-1 flex-col print:hidden lg:flex-row">
        <div className="border-line bg-paper max-lg:hidden lg:w-[22rem] lg:border-r">
          <div className="flex items-center border-b border-line px-3 py-1">
            <h1 className="text-lg font-bold">Bench</h1>
            <Button look="quiet" className="ml-auto" onClick={() => window.print()}>
              <PrintIcon /> Print the card
            </Button>
          </div>
          <div className="border-b border-line px-3 py-2">{choice}</div>
          <BendList
            plan={plan}
            steps={steps}
            current={current.bend.number}
            markOf={markOf}
            onChoose={(number) => go(steps.findIndex((step) => step.bend.number === number))}
          />
          <p className="px-4 py-3 text-[15px] text-soft">
            Eye protection and gloves on; foot firm on the heel; mind who stands in the swing of a long pipe.
            Ream every cut. Limits here are common defaults: check your local code.
          </p>
        </div>
        <BendCard
          plan={plan}
          step={current}
          markOf={markOf}
          onSet={(setting) => setSettings({ ...settings, [current.bend.number]: setting })}
          position={Math.min(at, steps.length - 1)}
          count={steps.length}
          onGo={go}
          sequence={choice}
        />
      </main>
      <BenchPrint plan={plan} steps={steps} markOf={markOf} />
    </>
  );
}

function NothingToBend({ plan }: { plan: Plan }) {
  const stop = plan.problems.find((problem) => problem.severity === "stop");
  return (
    <main className="mx-auto max-w-xl p-8 text-lg">
      <h1 className="mb-3 text-2xl font-bold">Nothing to bend yet</h1>
      {stop ? (
        <Notice severity="stop">
          {stop.says} {stop.remedy}
        </Notice>
      ) : (
        <p className="text-soft">This run is one straight pipe; there is only a cut to make.</p>
      )}
    </main>
  );
}
