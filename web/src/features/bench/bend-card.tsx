import type { ReactNode } from "react";
import type { Check, Plan, PlannedMark } from "@/api/types";
import { RollClock } from "@/draw/clock";
import { ShoeDrawing } from "@/draw/shoe";
import { StickStrip } from "@/draw/strip";
import { Button } from "@/ui/button";
import { BendTab, EndMark } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { useSize } from "@/ui/use-size";
import type { BenchStep } from "./bench-steps";
import type { MarkOf, Setting } from "./bench-view";
import { ordinal } from "./bend-list";

interface Props {
  plan: Plan;
  step: BenchStep;
  markOf: MarkOf;
  onSet: (setting: Setting) => void;
  position: number;
  count: number;
  onGo: (position: number) => void;
  /** The choice of the order in which the bends come. */
  sequence: ReactNode;
}

const REFERENCES: { value: Setting["reference"]; label: string }[] = [
  { value: "arrow", label: "Arrow" },
  { value: "star", label: "Star" },
  { value: "notch", label: "Notch" },
];
const HOOKS: { value: Setting["hook"]; label: string }[] = [
  { value: "A", label: "Hook A" },
  { value: "B", label: "Hook B" },
];

/** One bend: its mark as large as the screen gives, how the shoe is set on it, and what must then read. */
export function BendCard({ plan, step, markOf, onSet, position, count, onGo, sequence }: Props) {
  const { piece, bend } = step;
  const mark = markOf(bend);
  const [ref, size] = useSize<HTMLDivElement>();
  return (
    <section
      aria-label={`Bend ${bend.number}`}
      className="flex min-w-0 flex-1 flex-col px-4 pt-3 pb-24 lg:px-6 lg:pb-4"
    >
      <div className="mb-2 lg:hidden">{sequence}</div>
      <div ref={ref} className="max-sm:hidden">
        {size.width > 0 && (
          <StickStrip
            piece={piece}
            width={size.width}
            longest={piece.length.inches}
            chosenBends={[bend.number]}
            onChoose={() => undefined}
            markFor={markOf}
          />
        )}
      </div>
      <div className="mt-1 grid gap-x-8 gap-y-4 lg:grid-cols-[1fr_25rem]">
        <div>
          <p className="flex items-center gap-2 text-lg text-soft">
            <BendTab number={bend.number} chosen />
            <span className="tape">
              {ordinal(position + 1)} of {count} bends · piece {piece.number}, cut {piece.length.reads}
            </span>
          </p>
          <MarkReading mark={mark} />
          <div className="mt-3 flex gap-8">
            <Big name="On the" value={mark.reference} />
            <Big name="Hook to" value={<EndMark end={mark.hook} size={40} />} />
            <Big name="Bend to" value={bend.angle_reads} />
          </div>
          <Handling step={step} />
        </div>
        <div className="flex flex-col gap-3">
          {plan.shoe && (
            <div className="flex justify-center rounded-lg border border-line bg-paper pt-2 pb-1">
              <ShoeDrawing
                shoe={plan.shoe}
                mark={mark}
                angle={bend.angle}
                width={size.width < 600 ? 330 : 390}
              />
            </div>
          )}
          <div className="flex gap-2 max-sm:flex-wrap lg:justify-between">
            <Segments
              large
              label="Reference"
              value={mark.reference}
              choices={REFERENCES}
              onChoose={(reference) => onSet({ reference, hook: mark.hook })}
            />
            <Segments
              large
              label="Hook"
              value={mark.hook}
              choices={HOOKS}
              onChoose={(hook) => onSet({ reference: mark.reference, hook })}
            />
          </div>
        </div>
      </div>
      <ThenReads checks={(step.act?.bends.at(-1) === bend.number ? step.act : bend).checks} />
      <nav
        aria-label="Bends"
        className="fixed inset-x-0 bottom-0 z-10 flex gap-3 border-t border-line bg-paper p-3 lg:static lg:mt-auto lg:border-0 lg:bg-transparent lg:px-0 lg:pb-0"
      >
        <Button
          className="min-h-14 flex-1 text-lg lg:max-w-56"
          disabled={position === 0}
          onClick={() => onGo(position - 1)}
        >
          ‹ Back
        </Button>
        <Button
          look="main"
          className="min-h-14 flex-1 text-lg lg:ml-auto lg:max-w-56"
          disabled={position === count - 1}
          onClick={() => onGo(position + 1)}
        >
          Next bend ›
        </Button>
      </nav>
    </section>
  );
}

function MarkReading({ mark }: { mark: PlannedMark }) {
  return (
    <div>
      <p
        className="tape text-[clamp(5rem,10vw,7.75rem)] leading-none whitespace-nowrap font-extrabold tracking-tight"
        data-testid="mark"
      >
        {mark.at.reads}
      </p>
      <p className="mt-1 flex items-center gap-2 text-xl">
        from end <EndMark end="A" size={26} />
      </p>
      {!mark.on_pipe && (
        <Notice severity="caution">
          This mark would be off the pipe. Use another reference or turn the hook.
        </Notice>
      )}
    </div>
  );
}

function Big({ name, value }: { name: string; value: ReactNode }) {
  return (
    <div>
      <p className="text-base text-soft">{name}</p>
      <p className="tape min-h-12 text-4xl leading-12 font-bold">{value}</p>
    </div>
  );
}

/** How the pipe is taken for this bend: end for end, rolled, on the floor or in the air; and why now. */
function Handling({ step: { bend, act } }: { step: BenchStep }) {
  const isFirstShot = !act || act.bends[0] === bend.number;
  const turn = !act ? (bend.roll_from_previous ?? null) : isFirstShot ? act.turn : 0;
  const previous = act && isFirstShot ? act.previous : bend.number - 1;
  return (
    <div className="mt-3 flex items-center gap-4">
      <RollClock turn={turn} previous={previous ?? 0} size={112} />
      <div className="text-lg leading-snug">
        {act?.end_for_end && isFirstShot && <p className="font-semibold">Turn the pipe end for end first.</p>}
        <p>{act && isFirstShot ? act.turn_says : bend.turn}</p>
        {act && (
          <p className="font-semibold">
            {act.where === "floor" ? "On the floor." : "In the air: handle on the floor, pipe pushed down."}
          </p>
        )}
        {isFirstShot && act && act.reasons.length > 0 && (
          <p className="mt-0.5 text-base text-soft">{act.reasons.join(" ")}</p>
        )}
      </div>
    </div>
  );
}

function ThenReads({ checks }: { checks: Check[] }) {
  return (
    <section aria-label="Then it must read" className="mt-3 border-t border-line pt-2">
      <h2 className="text-lg font-bold">Then it must read</h2>
      <ul className="mt-1 grid gap-x-8 lg:grid-cols-2">
        {checks.map((check) => (
          <li key={check.says} className="flex items-baseline gap-3 border-b border-line/60 py-1.5">
            <span className="w-12 shrink-0 text-soft">{check.tool}</span>
            <span className="text-lg">{check.says}</span>
            <strong className="tape ml-auto text-2xl whitespace-nowrap">{check.reads}</strong>
          </li>
        ))}
      </ul>
    </section>
  );
}
