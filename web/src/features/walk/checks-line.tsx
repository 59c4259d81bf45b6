import { memo } from "react";
import type { Finding, Plan, RackPlan } from "@/api/types";
import { GLOSSARY } from "@/trade/glossary";
import { CautionIcon, GoodIcon, NoteIcon, StopIcon } from "@/ui/icons";
import { counted } from "@/ui/moments";
import { Term } from "@/ui/term";
import { isToMeasure, placed, stops } from "./run-context";

interface Props {
  plan: Plan;
  /** The pipes beside it. */
  rack?: RackPlan | undefined;
  /** Whether a test bend stands behind the shoe's figures. */
  isCalibrated: boolean;
  onChoose: (step: number) => void;
}

/** One line that says how the run stands; what is wrong is told at its place, and here for the whole. */
export const ChecksLine = memo(function ChecksLine({ plan, rack, isCalibrated, onChoose }: Props) {
  const rounded = plan.simulated.find((pipe) => pipe.marks === "rounded");
  return (
    <div
      className="flex flex-wrap items-center gap-x-4 max-lg:order-2 gap-y-0.5 border-y border-line bg-paper px-4 py-1.5 text-base"
      aria-live="polite"
    >
      <Verdict plan={plan} isCalibrated={isCalibrated} onChoose={onChoose} />
      {rack && <RackVerdict rack={rack} />}
      {plan.developed_length && (
        <Fact meaning={GLOSSARY["developed length"]} name="Pipe" value={plan.developed_length.reads} />
      )}
      <Fact
        meaning={`Bends between two pull points add up to ${plan.limits.most_degrees}° at most by the limits in force; check your local code.`}
        name="Bends"
        value={`${Math.round(plan.degrees * 10) / 10}° of ${plan.limits.most_degrees}°`}
      />
      {plan.supports.length > 0 && (
        <Fact
          meaning={`Straps along the pipe from end A at ${plan.supports.map((one) => one.reads).join(", ")}, as near to boxes and to each other as the limits in force ask. Check your local code.`}
          name="Straps"
          value={String(plan.supports.length)}
        />
      )}
      {rounded && (
        <Fact
          meaning="Marks are rounded to your tape; bent so in simulation, the far end comes to be this far from its seat."
          name="Rounding costs"
          value={rounded.miss < 1 / 32 ? "under 1/32" : rounded.miss_reads}
        />
      )}
      {plan.by_hand && (
        <Fact
          meaning={`What hands do ${plan.by_hand.hands} (${plan.by_hand.sigmas}) spreads the far end by this along and ${plan.by_hand.across.reads} across, one time in three more. ${plan.by_hand.precut ? "It may be cut first." : `Leave ${plan.by_hand.allowance.reads} to trim.`}`}
          name="By hand"
          value={plan.by_hand.precut ? "cut first" : `leave ${plan.by_hand.allowance.reads}`}
        />
      )}
      {plan.closure && (
        <Fact
          meaning={`${GLOSSARY.closure} ${closureWords(plan.closure)}`}
          name="Closes to"
          value={`${plan.closure.distance.reads}${plan.closure.one_in ? ` (1 in ${counted(plan.closure.one_in)})` : ""}`}
        />
      )}
    </div>
  );
});

/** How the pipes beside stand, all of them together. */
function RackVerdict({ rack }: { rack: RackPlan }) {
  const [Icon, color, says] = rackStands(rack);
  return (
    <span className={`flex items-center gap-1.5 font-bold ${color}`}>
      <Icon /> {says}
    </span>
  );
}

function rackStands(rack: RackPlan) {
  const pipes = rack.pipes.filter((pipe) => !pipe.free);
  const made = pipes.filter((pipe) => pipe.makeable).length;
  if (made < pipes.length)
    return [StopIcon, "text-stop", `${made} of ${pipes.length} pipes can be bent`] as const;
  if (rack.findings.some((one) => one.code === "rack_touches"))
    return [StopIcon, "text-stop", "Pipes run into each other"] as const;
  if (!rack.makeable) return [StopIcon, "text-stop", "The rack cannot be laid out yet"] as const;
  if (rack.gaps_kept) return [GoodIcon, "text-good", `All ${pipes.length} pipes, gaps kept`] as const;
  return [CautionIcon, "text-caution", `All ${pipes.length} pipes; gaps smaller than asked`] as const;
}

function closureWords(closure: NonNullable<Plan["closure"]>): string {
  if (!closure.off_reads.length) return "Here both agree.";
  return `Here the run ends ${closure.off_reads.join(", ")} of the box, in ${closure.measured.reads} measured.`;
}

function Verdict({ plan, isCalibrated, onChoose }: Props) {
  const cautions = plan.findings.filter((finding) => finding.severity === "caution");
  if (!plan.makeable && !plan.findings.some(stops) && plan.findings.some(isToMeasure))
    return (
      <Touch plan={plan} place={firstOf(plan, isToMeasure)} onChoose={onChoose} className="text-ink">
        <NoteIcon /> {stillToMeasure(plan)}
      </Touch>
    );
  if (!plan.makeable)
    return (
      <Touch plan={plan} place={firstOf(plan, stops)} onChoose={onChoose} className="text-stop">
        <StopIcon /> {stopWords(plan)}
      </Touch>
    );
  if (!cautions.length && !isCalibrated)
    return (
      <span className="flex items-center gap-1.5 font-bold text-caution">
        <CautionIcon /> Can be bent; the shoe is not calibrated
      </span>
    );
  if (!cautions.length)
    return (
      <span className="flex items-center gap-1.5 font-bold text-good">
        <GoodIcon /> Can be bent
      </span>
    );
  return (
    <Touch plan={plan} place={cautions[0]?.place ?? ""} onChoose={onChoose} className="text-caution">
      <CautionIcon /> Can be bent; {cautions.length === 1 ? "one caution" : `${cautions.length} cautions`}
    </Touch>
  );
}

interface TouchProps {
  plan: Plan;
  place: string;
  onChoose: (step: number) => void;
  className: string;
  children: React.ReactNode;
}

/** Leads to the step where it is told. */
function Touch({ place, onChoose, className, children }: TouchProps) {
  const step = stepOf(place);
  const look = `flex items-center gap-1.5 font-bold ${className}`;
  if (step === null) return <span className={look}>{children}</span>;
  return (
    <button
      type="button"
      className={`${look} rounded-sm underline-offset-4 hover:underline`}
      onClick={() => onChoose(step)}
    >
      {children}
    </button>
  );
}

const stepOf = (place: string): number | null =>
  place.startsWith("steps.") ? Number(place.split(".")[1]) : null;

const firstOf = (plan: Plan, is: (finding: Finding) => boolean): string =>
  plan.findings.find(is)?.place ?? "";

function stillToMeasure(plan: Plan): string {
  const count = plan.findings.filter(isToMeasure).length;
  return `Still to measure: ${count === 1 ? "one figure" : `${count} figures`}`;
}

function stopWords(plan: Plan): string {
  const place = firstOf(plan, stops);
  if (!place) return "Not finished yet";
  const step = stepOf(place);
  if (step !== null) return `Stops at step ${step + 1}`;
  return placed(plan.findings, "end").length ? "Stops at the end" : "Cannot be laid out yet";
}

function Fact({ name, value, meaning }: { name: string; value: string; meaning: string }) {
  return (
    <span className="text-soft">
      <Term meaning={meaning}>{name}</Term> <strong className="tape text-lg text-ink">{value}</strong>
    </span>
  );
}
