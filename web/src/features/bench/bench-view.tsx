import { useState } from "react";
import type { BenchBend, Plan, PlannedMark, PlannedPiece } from "@/api/types";
import { useRunContext } from "@/features/walk/run-context";
import { Button } from "@/ui/button";
import { PrintIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { BendCard } from "./bend-card";
import { BendList } from "./bend-list";
import { BenchPrint } from "./print";

export type Setting = Pick<PlannedMark, "reference" | "hook">;
export type Settings = Record<number, Setting>;

export interface BenchStep {
  piece: PlannedPiece;
  bend: BenchBend;
}

/** The mark that is shown for a bend: as the person set it, else as proposed. */
export function markFor(bend: BenchBend, settings: Settings): PlannedMark {
  const set = settings[bend.number];
  return bend.marks.find((mark) => mark.reference === set?.reference && mark.hook === set.hook) ?? bend.use;
}

/** Mark and bend: one bend a screen, readable at arm's length. */
export function BenchView() {
  const { plan } = useRunContext();
  if (!plan) return <main />;
  if (!plan.makeable || !plan.pieces.some((piece) => piece.bends.length))
    return <NothingToBend plan={plan} />;
  return <Bench plan={plan} />;
}

function Bench({ plan }: { plan: Plan }) {
  const steps = plan.pieces.flatMap((piece) => piece.bends.map((bend): BenchStep => ({ piece, bend })));
  const [at, setAt] = useState(0);
  const [settings, setSettings] = useState<Settings>({});
  const current = steps[Math.min(at, steps.length - 1)];
  if (!current) return null;
  const go = (next: number) => setAt(Math.min(Math.max(next, 0), steps.length - 1));
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
          <BendList
            plan={plan}
            current={current.bend.number}
            settings={settings}
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
          settings={settings}
          onSet={(setting) => setSettings({ ...settings, [current.bend.number]: setting })}
          position={Math.min(at, steps.length - 1)}
          count={steps.length}
          onGo={go}
        />
      </main>
      <BenchPrint plan={plan} settings={settings} />
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
