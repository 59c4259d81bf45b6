import { useEffect, useState } from "react";
import { useMarksJudged } from "@/api/draft-queries";
import type { BenchBend, MarksJudged, Plan } from "@/api/types";
import { type LaidMark, useMarksCheck, usePlanned, useWork } from "@/features/layout/run-context";
import { ANGLES } from "@/trade/words";
import { Button } from "@/ui/button";
import { BendTab, GoodIcon, StopIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { Pattern } from "@/ui/pattern";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { t } from "@/words/layout";
import { asPlanned, bendsOf, given } from "./laid-marks";

const TURNED = [
  { value: "0", label: t("marks.turned.planned") },
  { value: "180", label: t("marks.turned.half") },
  { value: "90", label: t("marks.turned.left") },
  { value: "-90", label: t("marks.turned.right") },
];
const CENTRE = { value: "centre", label: t("marks.centre") };
const HOOKS = [
  { value: "A" as const, label: t("marks.hook_a") },
  { value: "B" as const, label: t("marks.hook_b") },
];

/** Marks as somebody laid them: what pipe they make, and which mistake they look like. */
export function MarksPanel() {
  const { plan } = usePlanned();
  if (!plan?.makeable) return <p className="p-3 text-soft">{t("marks.not_yet")}</p>;
  return <LaidPanel plan={plan} />;
}

type References = { value: string; label: string }[];

function LaidPanel({ plan }: { plan: Plan }) {
  const { draft } = useWork();
  const { laid, setLaid, setJudged } = useMarksCheck();
  const marks = laid ?? asPlanned(plan);
  const [cuts, setCuts] = useState<string[]>([]);
  const checking = useMarksJudged(draft.document, given(plan, marks), cuts);
  const judged = checking.error ? null : (checking.data ?? null);
  useEffect(() => setJudged(judged), [judged, setJudged]);
  const set = (number: number, change: Partial<LaidMark>) => {
    const mark = marks[number];
    if (mark) setLaid({ ...marks, [number]: { ...mark, ...change } });
  };
  const reset = () => {
    setLaid(null);
    setCuts([]);
  };
  const references = [
    ...Object.keys(plan.shoe?.references ?? {}).map((value) => ({ value, label: value })),
    CENTRE,
  ];
  return (
    <div className="flex flex-col gap-1 pb-3">
      <p className="px-3 pt-2 text-[15px] text-soft">{t("marks.intro")}</p>
      <div className="flex flex-col items-start gap-2 px-3 py-2" aria-live="polite">
        {checking.error && <Notice severity="stop">{checking.error.message}</Notice>}
        {judged && <Judged judged={judged} />}
        {(laid || cuts.length > 0) && <Button onClick={reset}>{t("marks.reset")}</Button>}
      </div>
      <ol aria-label={t("marks.list")} className="border-t border-line/60">
        {bendsOf(plan).map((bend, at) => {
          const mark = marks[bend.number];
          if (!mark) return null;
          return (
            <LaidMarkRow
              key={bend.number}
              bend={bend}
              mark={mark}
              told={judged?.marks[at]}
              references={references}
              onChange={(change) => set(bend.number, change)}
            />
          );
        })}
      </ol>
      <CutTo plan={plan} cuts={cuts} onChange={setCuts} />
    </div>
  );
}

/** What the marks make: whether they are right, what was likely done, and where the pipe would lie. */
function Judged({ judged }: { judged: MarksJudged }) {
  return (
    <Notice severity={judged.right ? "note" : "stop"}>
      <strong>{judged.says}</strong>
      {judged.step !== null && t("marks.step", { step: judged.step + 1 })}{" "}
      {t("marks.far_end", {
        detail: judged.end_fits
          ? t("marks.fits")
          : t("marks.misses", { end_misses_by: judged.end_misses_by.reads }),
      })}
      {judged.passed.map((thing) => (
        <span key={thing.name + thing.clearance}>
          {" "}
          {thing.touches
            ? t("marks.touches", { thing: thing.name })
            : t("marks.clears", { thing: thing.name, clearance: thing.clearance })}
        </span>
      ))}
    </Notice>
  );
}

interface RowProps {
  bend: BenchBend;
  mark: LaidMark;
  told: MarksJudged["marks"][number] | undefined;
  references: References;
  onChange: (change: Partial<LaidMark>) => void;
}

/** A mark as it was laid and set, each part to be changed, and what is said of it. */
function LaidMarkRow({ bend, mark, told, references, onChange }: RowProps) {
  const { number } = bend;
  const inches = told ? told.should_be.inches + told.off : bend.use.at.inches;
  return (
    <li className="flex items-start gap-2 border-b border-line/60 px-3 py-2">
      <BendTab number={number} />
      <div className="text-[17px] leading-9">
        <Pattern
          sentence={t("marks.laid")}
          slots={{
            at: (
              <TapeField
                label={t("marks.at", { bend: number })}
                value={mark.at}
                read={{ written: mark.at, inches }}
                onChange={(at) => onChange({ at })}
              />
            ),
            reference: (
              <Select
                label={t("marks.reference", { bend: number })}
                value={mark.reference}
                choices={references}
                onChoose={(reference) => onChange({ reference })}
              />
            ),
            hook: (
              <Select
                label={t("marks.hook", { bend: number })}
                value={mark.hook}
                choices={HOOKS}
                onChoose={(hook) => onChange({ hook })}
              />
            ),
            angle: (
              <TapeField
                label={t("marks.angle", { bend: number })}
                value={mark.angle}
                steps={ANGLES}
                invalid={told !== undefined && Math.abs(told.angle_off) > 0.5}
                onChange={(angle) => onChange({ angle })}
              />
            ),
            turned: (
              <Select
                label={t("marks.turned", { bend: number })}
                value={String(mark.turned)}
                choices={TURNED}
                onChoose={(turned) => onChange({ turned: Number(turned) })}
              />
            ),
          }}
        />
        {told && <Told told={told} />}
      </div>
    </li>
  );
}

function Told({ told }: { told: MarksJudged["marks"][number] }) {
  return (
    <p className="tape flex items-center gap-1.5 text-[15px] leading-snug">
      {told.right ? (
        <GoodIcon width={18} height={18} className="text-good" />
      ) : (
        <StopIcon width={18} height={18} className="text-stop" />
      )}
      {told.off_reads}
      {!told.right && (
        <span className="text-soft">{t("marks.should_be", { should_be: told.should_be.reads })}</span>
      )}
    </p>
  );
}

/** To what length each piece was cut. */
function CutTo({ plan, cuts, onChange }: { plan: Plan; cuts: string[]; onChange: (cuts: string[]) => void }) {
  return (
    <p className="px-3 text-[17px] leading-9">
      {plan.pieces.map((piece, at) => (
        <span key={piece.number} className="mr-3 inline-block">
          {t("marks.cut_to", { piece: piece.number })}{" "}
          <TapeField
            label={t("marks.cut_to.label", { piece: piece.number })}
            value={cuts[at] ?? piece.length.reads}
            read={{ written: piece.length.reads, inches: piece.length.inches }}
            onChange={(text) =>
              onChange(plan.pieces.map((_, one) => (one === at ? text : (cuts[one] ?? ""))))
            }
          />
        </span>
      ))}
    </p>
  );
}
