import type { Plan } from "@/api/types";
import { CautionIcon, GoodIcon, StopIcon } from "@/ui/icons";
import { placed } from "./walk-list";

/** One line that says how the run stands; what is wrong is told at its place, and here for the whole. */
export function ChecksLine({ plan }: { plan: Plan }) {
  const stops = plan.problems.filter((problem) => problem.severity === "stop").length;
  const rounded = plan.simulated.find((pipe) => pipe.marks === "rounded");
  const cautions = plan.problems.filter((problem) => problem.severity === "caution").length;
  return (
    <div
      className="flex flex-wrap items-center gap-x-5 gap-y-1 border-y border-line bg-paper px-4 py-2 text-[17px]"
      aria-live="polite"
    >
      {plan.makeable && !cautions && (
        <span className="flex items-center gap-1.5 font-bold text-good">
          <GoodIcon /> Can be bent
        </span>
      )}
      {plan.makeable && cautions > 0 && (
        <span className="flex items-center gap-1.5 font-bold text-caution">
          <CautionIcon /> Can be bent; {cautions === 1 ? "one caution" : `${cautions} cautions`}
        </span>
      )}
      {!plan.makeable && (
        <span className="flex items-center gap-1.5 font-bold text-stop">
          <StopIcon /> {stopWords(plan, stops)}
        </span>
      )}
      {plan.developed_length && <Fact name="Developed length" value={plan.developed_length.reads} />}
      <Fact name="Bends" value={`${Math.round(plan.degrees * 10) / 10}° of ${plan.degrees_allowed}°`} />
      {rounded && (
        <Fact
          name="Rounded marks miss by"
          value={rounded.miss < 1 / 32 ? "under 1/32" : rounded.miss_reads}
        />
      )}
    </div>
  );
}

function stopWords(plan: Plan, stops: number): string {
  if (!stops) return "Not finished yet";
  const first = plan.problems.find((problem) => problem.severity === "stop");
  const step = first?.place.startsWith("steps.") ? Number(first.place.split(".")[1]) + 1 : null;
  if (step) return `Stops at step ${step}`;
  return placed(plan.problems, "end").length ? "Stops at the end" : "Cannot be laid out yet";
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <span className="text-soft">
      {name} <strong className="tape text-lg text-ink">{value}</strong>
    </span>
  );
}
