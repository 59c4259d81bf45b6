import type { BendStep, OffsetStep, RunDocument, Step, Written } from "@/api/types";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { useRunContext } from "./run-page";
import { inchesAt, placed } from "./walk-list";
import {
  ANGLES,
  HEADINGS,
  type Heading,
  MEASURED_TO,
  NEXT_FROM,
  OFFSET_REFERENCES,
  STEP_WORDS,
} from "./words";

interface SentenceProps<Kind extends Step> {
  step: Kind;
  index: number;
  onChange: (next: Step, field: string) => void;
}

export function StepSentence({ step, index, onChange }: SentenceProps<Step>) {
  if (step.kind === "bend") return <BendSentence step={step} index={index} onChange={onChange} />;
  if (step.kind === "offset") return <OffsetSentence step={step} index={index} onChange={onChange} />;
  return <PlainSentence step={step} index={index} onChange={onChange} />;
}

/** A step that has no sentence of its own yet: its name and its numbers, each editable. */
function PlainSentence({ step, index, onChange }: SentenceProps<Step>) {
  const numbers = Object.entries(step).filter(([field, value]) => field in FIELD_WORDS && value !== null);
  const words = Object.entries(step).filter(([field]) => field in DIRECTION_WORDS);
  return (
    <p className="text-[17px] leading-9">
      <strong>{STEP_WORDS[step.kind]}</strong>
      {words.map(([field, value]) => (
        <span key={field}>
          {" "}
          {DIRECTION_WORDS[field]}{" "}
          <DirectionField
            index={index}
            field={field}
            value={value as Heading}
            onChoose={(next) => onChange({ ...step, [field]: next } as Step, "")}
          />
        </span>
      ))}
      {numbers.map(([field, value]) => (
        <span key={field}>
          , {FIELD_WORDS[field as NumberField]}{" "}
          <LengthField
            index={index}
            field={field as NumberField}
            value={value as Written}
            onChange={(next) => onChange({ ...step, [field]: next } as Step, field)}
          />
        </span>
      ))}
      .
    </p>
  );
}

function BendSentence({ step, index, onChange }: SentenceProps<BendStep>) {
  const { mayWrite, chosen } = useRunContext();
  const to = step.to ?? "back";
  const nextFrom = step.next_from ?? "back";
  return (
    <p className="text-[17px] leading-9">
      <strong>90</strong>{" "}
      <DirectionField
        index={index}
        field="turn"
        value={step.turn}
        onChoose={(turn) => onChange({ ...step, turn }, "")}
      />
      ,{" "}
      <Select
        label={`Step ${index + 1}, measured to`}
        value={to}
        choices={MEASURED_TO}
        disabled={!mayWrite}
        onChoose={(next) => onChange({ ...step, to: next }, "")}
      />{" "}
      at{" "}
      <LengthField
        index={index}
        field="at"
        value={step.at}
        onChange={(at) => onChange({ ...step, at }, "at")}
      />
      {to === "wall" && (
        <>
          , standing off{" "}
          <LengthField
            index={index}
            field="stand_off"
            value={step.stand_off ?? 0}
            onChange={(stand_off) => onChange({ ...step, stand_off }, "stand_off")}
          />
        </>
      )}
      {(nextFrom !== "back" || chosen === index) && (
        <>
          ; next leg measured from{" "}
          <Select
            label={`Step ${index + 1}, next leg measured from`}
            value={nextFrom}
            choices={NEXT_FROM}
            disabled={!mayWrite}
            onChoose={(next) => onChange({ ...step, next_from: next }, "")}
          />
        </>
      )}
      .
    </p>
  );
}

function OffsetSentence({ step, index, onChange }: SentenceProps<OffsetStep>) {
  const { mayWrite } = useRunContext();
  return (
    <p className="text-[17px] leading-9">
      <strong>Offset</strong>{" "}
      <DirectionField
        index={index}
        field="toward"
        value={step.toward}
        onChoose={(toward) => onChange({ ...step, toward }, "")}
      />{" "}
      by{" "}
      <LengthField
        index={index}
        field="rise"
        value={step.rise ?? ""}
        onChange={(rise) => onChange({ ...step, rise }, "rise")}
      />{" "}
      at{" "}
      <LengthField
        index={index}
        field="angle"
        value={step.angle}
        steps={ANGLES}
        unit="°"
        onChange={(angle) => onChange({ ...step, angle }, "angle")}
      />
      ,{" "}
      <Select
        label={`Step ${index + 1}, placed by`}
        value={step.ref ?? "raised_by"}
        choices={OFFSET_REFERENCES}
        disabled={!mayWrite}
        onChoose={(ref) => onChange({ ...step, ref }, "")}
      />{" "}
      <LengthField
        index={index}
        field="at"
        value={step.at}
        onChange={(at) => onChange({ ...step, at }, "at")}
      />
      .
    </p>
  );
}

function DirectionField(props: {
  index: number;
  field: string;
  value: Heading;
  onChoose: (value: Heading) => void;
}) {
  const { index, field, value, onChoose } = props;
  const run = useRunContext();
  return (
    <Select
      label={`Step ${index + 1}, ${field}`}
      value={value}
      choices={HEADINGS}
      disabled={!run.mayWrite}
      invalid={placed(run.plan?.problems, `steps.${index}.${field}`).length > 0}
      onChoose={onChoose}
    />
  );
}

interface LengthProps {
  index: number;
  field: NumberField;
  value: Written;
  onChange: (value: string) => void;
  steps?: string[];
  unit?: string;
}

const FIELD_WORDS = {
  at: "measure",
  rise: "rise",
  angle: "angle",
  stand_off: "stand-off",
  roll: "roll",
  near: "near edge",
  width: "width",
  margin: "margin",
  kick_back: "setback",
  kick_angle: "kick angle",
  knockout: "knockout",
  straight: "straight kept",
  radius: "radius",
};
type NumberField = keyof typeof FIELD_WORDS;

const DIRECTION_WORDS: Record<string, string> = {
  toward: "toward",
  roll_toward: "and",
  turn: "turning",
  surface: "to the surface",
};

function LengthField({ index, field, value, onChange, steps, unit }: LengthProps) {
  const run = useRunContext();
  const place = `steps.${index}.${field}`;
  const wrong = placed(run.plan?.problems, place).some((problem) => problem.severity === "stop");
  return (
    <TapeField
      label={`Step ${index + 1}, ${FIELD_WORDS[field]}`}
      value={value}
      disabled={!run.mayWrite}
      invalid={wrong}
      describedBy={wrong ? `problems-${index}` : undefined}
      inches={inchesAt(run, place)}
      {...(steps ? { steps } : {})}
      {...(unit ? { unit } : {})}
      onChange={onChange}
    />
  );
}

const ACROSS: Record<Heading, Heading> = {
  up: "right",
  down: "right",
  left: "down",
  right: "down",
  out: "right",
  in: "right",
};

/** A step to begin with: turned to a direction across the pipe, its numbers still to be measured. */
export function newStep(kind: Step["kind"], document: RunDocument, index: number): Step {
  const across = ACROSS[headingBefore(document, index)];
  if (kind === "bend")
    return { kind, turn: across, angle: "90", to: "back", at: "", stand_off: "0", next_from: "back" };
  return { kind: "offset", toward: across, rise: "", angle: "30", ref: "raised_by", at: "" };
}

/** The heading as the person named it last; only to propose a direction. */
function headingBefore(document: RunDocument, index: number): Heading {
  const turns = document.steps.slice(0, index).flatMap((step) => ("turn" in step ? [step.turn] : []));
  return turns.at(-1) ?? document.start.heading;
}
