import { memo, useContext } from "react";
import type { Finding, Plan, RackPlan } from "@/api/types";
import { usual } from "@/draw/fractions";
import { GLOSSARY } from "@/trade/glossary";
import { CautionIcon, GoodIcon, NoteIcon, StopIcon } from "@/ui/icons";
import { counted } from "@/ui/moments";
import { TapeContext } from "@/ui/tape-field";
import { Term } from "@/ui/term";
import { t } from "@/words/layout";
import { isToMeasure, placed, stops } from "./run-context";
import { worstAmongOthers } from "./use-among-others";

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
  const least = usual("1/32", "1 mm", useContext(TapeContext));
  const rounded = plan.simulated.find((pipe) => pipe.marks === "rounded");
  return (
    <div
      data-tour="verdict"
      className="flex items-center gap-x-4 gap-y-0.5 border-y border-line bg-paper px-4 py-1.5 text-base max-lg:sticky max-lg:top-[var(--picture)] max-lg:z-20 max-lg:order-2 max-lg:min-h-11 max-lg:overflow-x-auto max-lg:whitespace-nowrap lg:flex-wrap"
      aria-live="polite"
    >
      <Verdict plan={plan} isCalibrated={isCalibrated} onChoose={onChoose} />
      {rack && <RackVerdict rack={rack} />}
      <AmongOthers plan={plan} onChoose={onChoose} />
      {plan.developed_length && (
        <Fact
          meaning={GLOSSARY["developed length"]}
          name={t("checks.pipe.name")}
          value={plan.developed_length.reads}
        />
      )}
      <Fact
        meaning={t("checks.bends", { most_degrees: plan.limits.most_degrees ?? 0 })}
        name={t("checks.bends.name")}
        value={t("checks.bends.of", {
          degrees: Math.round(plan.degrees * 10) / 10,
          most_degrees: plan.limits.most_degrees ?? 0,
        })}
      />
      {plan.supports.length > 0 && (
        <Fact
          meaning={t("checks.straps", {
            supports: plan.supports.map((one) => one.reads).join(", "),
          })}
          name={t("checks.straps.name")}
          value={String(plan.supports.length)}
        />
      )}
      {rounded && (
        <Fact
          meaning={t("checks.rounding")}
          name={t("checks.rounding.name")}
          value={rounded.miss < 1 / 32 ? t("checks.rounding.under", { least }) : rounded.miss_reads}
        />
      )}
      {plan.by_hand && (
        <Fact
          meaning={t("checks.by_hand", {
            hands: plan.by_hand.hands,
            sigmas: plan.by_hand.sigmas,
            across: plan.by_hand.across.reads,
            detail: plan.by_hand.precut
              ? t("checks.cut_first")
              : t("checks.leave", { allowance: plan.by_hand.allowance.reads }),
          })}
          name={plan.by_hand.precut ? t("checks.cut_first.name") : t("checks.leave.name")}
          {...(!plan.by_hand.precut && {
            value: plan.by_hand.allowance.reads,
            after: t("checks.leave.then"),
          })}
        />
      )}
      {plan.closure && (
        <Fact
          meaning={`${GLOSSARY.closure} ${closureWords(plan.closure)}`}
          name={t("checks.closure.name")}
          value={plan.closure.distance.reads}
        />
      )}
    </div>
  );
});

/** Whether it runs into another run of its job: it can be bent all the same, and not hung. */
function AmongOthers({ plan, onChoose }: Pick<Props, "plan" | "onChoose">) {
  const worst = worstAmongOthers(plan);
  if (worst?.severity !== "stop") return null;
  return (
    <Touch place={worst.place} onChoose={onChoose} className="text-stop">
      <StopIcon /> {t("verdict.meets_another")}
    </Touch>
  );
}

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
    return [StopIcon, "text-stop", t("rack.verdict.some", { made, pipes: pipes.length })] as const;
  if (rack.findings.some((one) => one.code === "rack_touches"))
    return [StopIcon, "text-stop", t("rack.verdict.touch")] as const;
  if (!rack.makeable) return [StopIcon, "text-stop", t("rack.verdict.not_yet")] as const;
  if (rack.gaps_kept) return [GoodIcon, "text-good", t("rack.verdict.all", { pipes: pipes.length })] as const;
  return [CautionIcon, "text-caution", t("rack.verdict.smaller", { pipes: pipes.length })] as const;
}

function closureWords(closure: NonNullable<Plan["closure"]>): string {
  if (!closure.off_reads.length || !closure.one_in) return t("checks.closure.agree");
  return t("checks.closure.off", {
    off_reads: closure.off_reads.join(", "),
    measured: closure.measured.reads,
    one_in: counted(closure.one_in),
  });
}

function Verdict({ plan, isCalibrated, onChoose }: Props) {
  const cautions = plan.findings.filter((finding) => finding.severity === "caution");
  if (!plan.makeable && !plan.findings.some(stops) && plan.findings.some(isToMeasure))
    return (
      <Touch place={firstOf(plan, isToMeasure)} onChoose={onChoose} className="text-ink">
        <NoteIcon /> {stillToMeasure(plan)}
      </Touch>
    );
  if (!plan.makeable)
    return (
      <Touch place={firstOf(plan, stops)} onChoose={onChoose} className="text-stop">
        <StopIcon /> {stopWords(plan)}
      </Touch>
    );
  if (!cautions.length && !isCalibrated)
    return (
      <span className="flex items-center gap-1.5 font-bold text-caution">
        <CautionIcon /> {t("verdict.uncalibrated")}
      </span>
    );
  if (!cautions.length)
    return (
      <span className="flex items-center gap-1.5 font-bold text-good">
        <GoodIcon /> {t("verdict.good")}
      </span>
    );
  return (
    <Touch place={cautions[0]?.place ?? ""} onChoose={onChoose} className="text-caution">
      <CautionIcon />{" "}
      {t("verdict.with_cautions", {
        detail:
          cautions.length === 1
            ? t("verdict.one_caution")
            : t("verdict.cautions", { cautions: cautions.length }),
      })}
    </Touch>
  );
}

interface TouchProps {
  place: string;
  onChoose: (step: number) => void;
  className: string;
  children: React.ReactNode;
}

/** Leads to the step where it is told. */
function Touch({ place, onChoose, className, children }: TouchProps) {
  const step = stepOf(place);
  const look = `flex shrink-0 items-center gap-1.5 font-bold ${className}`;
  if (step === null) return <span className={look}>{children}</span>;
  return (
    <button
      type="button"
      className={`${look} min-h-11 rounded-sm underline-offset-4 hover:underline lg:min-h-0`}
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
  return t("verdict.to_measure", {
    detail: count === 1 ? t("verdict.one_figure") : t("verdict.figures", { number: count }),
  });
}

function stopWords(plan: Plan): string {
  const place = firstOf(plan, stops);
  if (!place) return t("verdict.unfinished");
  const step = stepOf(place);
  if (step !== null) return t("verdict.stops_at_step", { step: step + 1 });
  return placed(plan.findings, "end").length ? t("verdict.stops_at_end") : t("verdict.not_laid_out");
}

interface FactProps {
  name: string;
  value?: string;
  after?: string;
  meaning: string;
}

function Fact({ name, value, after, meaning }: FactProps) {
  return (
    <span className="text-soft">
      <Term meaning={meaning}>{name}</Term> <strong className="tape text-lg text-ink">{value}</strong> {after}
    </span>
  );
}
