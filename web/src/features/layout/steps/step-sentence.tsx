import { Fragment, useContext } from "react";
import type { Step, Written } from "@/api/types";
import { RackWayClause } from "@/features/layout/rack/rack-way";
import { placed } from "@/features/layout/run-context";
import { asCount } from "@/trade/counts";
import { GLOSSARY } from "@/trade/glossary";
import { ANGLES, FIELD_WORDS, HEADINGS, type Heading, RISE_BY, TRADE_SIZES } from "@/trade/words";
import { Select } from "@/ui/select";
import { TapeContext } from "@/ui/tape-field";
import { Term } from "@/ui/term";
import { t } from "@/words/layout";
import { AddFigure, TakeOut } from "./add-figure";
import { LeverTool } from "./lever-tool";
import { NameField } from "./name-field";
import { newThing } from "./new-step";
import { type Part, SENTENCES } from "./sentences";
import { useStepContext } from "./step-context";
import { StepNumber } from "./step-number";
import { WindowClause } from "./window-clause";

type Fields = Record<string, unknown>;

type EitherPart = Extract<Part, { show: "either" }>;

interface Props {
  step: Step;
  onChange: (next: Step, field: string) => void;
}

/** A step as one sentence, every number of it editable where it stands. */
export function StepSentence({ step, onChange }: Props) {
  const parts = SENTENCES[step.kind];
  const { racked } = useStepContext();
  return (
    <p className="text-[17px] leading-9">
      <Parts parts={parts} step={step} onChange={onChange} />.
      {racked && <RackWayClause step={step} onChange={onChange} />}
    </p>
  );
}

function Parts({ parts, ...rest }: Props & { parts: Part[] }) {
  return parts.map((part, at) => (
    // A sentence's parts never change places.
    // biome-ignore lint/suspicious/noArrayIndexKey: see above
    <Fragment key={at}>{typeof part === "string" ? part : <PartView part={part} {...rest} />}</Fragment>
  ));
}

function PartView({ part, ...props }: Props & { part: Exclude<Part, string> }) {
  const { step, onChange } = props;
  const { place, called, mayWrite, chosen, findings } = useStepContext();
  const fields = step as unknown as Fields;
  const set = (field: string, value: unknown, place = field) =>
    onChange({ ...step, [field]: value } as Step, place);
  const label = (field: string) => `${called}, ${FIELD_WORDS[field] ?? field}`;
  switch (part.show) {
    case "term":
      return (
        <strong>
          <Term meaning={GLOSSARY[part.word]}>{part.says}</Term>
        </strong>
      );
    case "direction":
      return (
        <Select
          label={label(part.field)}
          value={fields[part.field] as Heading}
          choices={HEADINGS}
          disabled={!mayWrite}
          invalid={placed(findings, `${place}.${part.field}`).length > 0}
          onChoose={(next) => set(part.field, next, "")}
        />
      );
    case "choice":
      return (
        <Select
          label={label(part.field)}
          value={(fields[part.field] as string | undefined) ?? part.from}
          choices={part.choices}
          disabled={!mayWrite}
          onChoose={(next) => set(part.field, next, "")}
        />
      );
    case "length":
      return (
        <StepNumber
          field={part.field}
          value={(fields[part.field] as Written | null | undefined) ?? part.from ?? ""}
          onChange={(value) => set(part.field, value)}
        />
      );
    case "angle":
      return (
        <StepNumber
          field={part.field}
          value={(fields[part.field] as Written | null | undefined) ?? part.steps.at(-1) ?? ""}
          steps={part.steps}
          unit="°"
          passedOver={part.passedOver ?? false}
          onChange={(value) => set(part.field, value)}
        />
      );
    case "name":
      return (
        <NameField
          label={label(part.field)}
          value={String(fields[part.field] ?? "")}
          disabled={!mayWrite}
          onChange={(value) => set(part.field, value)}
        />
      );
    case "rise":
      return <Rise {...props} />;
    case "radius":
      return <RadiusBy {...props} />;
    case "window":
      return <WindowClause {...props} />;
    case "lever tool":
      return <LeverTool {...props} />;
    case "either":
      return <EitherBy {...props} by={part.by} choices={part.choices} />;
    case "when":
      return part.test(fields, chosen) ? <Parts parts={part.parts} {...props} /> : null;
  }
}

/** The rise as measured, or what is to be got over: its height and clearance. */
function Rise({ step, onChange }: Props) {
  const { called, mayWrite } = useStepContext();
  const tape = useContext(TapeContext);
  if (step.kind !== "offset" && step.kind !== "saddle3" && step.kind !== "saddle4") return null;
  const { over } = step;
  function choose(next: "rise" | "box" | "round") {
    const thing = next === "rise" ? null : over ? { ...over, shape: next } : newThing(next, tape);
    onChange({ ...step, over: thing, rise: thing ? null : ("rise" in step && step.rise) || "" } as Step, "");
  }
  const setThing = (field: string, value: string | null) =>
    onChange({ ...step, over: { ...over, [field]: value } } as Step, `over.${field}`);
  return (
    <>
      <Select
        label={t("riseBy", { called })}
        value={over ? (over.shape ?? "box") : "rise"}
        choices={RISE_BY}
        disabled={!mayWrite}
        onChoose={choose}
      />{" "}
      {over ? (
        <>
          <NameField
            label={`${called}, ${FIELD_WORDS["over.name"]}`}
            value={over.name ?? ""}
            disabled={!mayWrite}
            onChange={(name) => setThing("name", name)}
          />{" "}
          <StepNumber
            field="over.height"
            value={over.height}
            onChange={(height) => setThing("height", height)}
          />{" "}
          {t("high")}{" "}
          <StepNumber
            field="over.clear"
            value={over.clear ?? "1/2"}
            onChange={(clear) => setThing("clear", clear)}
          />{" "}
          {t("clear2")}
          {/* Where its straps before a thing are others than the run's. */}
          <AddedFigure
            field="stand_off"
            value={over.stand_off}
            add={t("pipeOff")}
            before={t("thePipeBeforeItOff")}
            takeOut={t("takeOutHowFarThe")}
            onChange={setThing}
          />
          {/* How far it reaches to each side of the leg, where the run comes back beside it. */}
          <AddedFigure
            field="reach"
            value={over.reach}
            add={t("howFarItReaches")}
            before={t("reaching")}
            after={t("toEachSide")}
            takeOut={t("takeOutHowFarItReaches")}
            onChange={setThing}
          />
        </>
      ) : (
        <StepNumber
          field="rise"
          value={step.rise ?? ""}
          onChange={(rise) => onChange({ ...step, rise } as Step, "rise")}
        />
      )}
    </>
  );
}

interface AddedFigureProps {
  field: "stand_off" | "reach";
  value: Written | null | undefined;
  /** On the button that adds it, before and after its number, and of the button that takes it out. */
  add: string;
  before: string;
  after?: string;
  takeOut: string;
  onChange: (field: "stand_off" | "reach", value: string | null) => void;
}

/** A figure of a thing in the way that few need: a button, until it is added. */
function AddedFigure({ field, value, add, before, after, takeOut, onChange }: AddedFigureProps) {
  const { chosen, mayWrite } = useStepContext();
  if (value === null || value === undefined)
    return chosen && mayWrite ? <AddFigure says={add} onAdd={() => onChange(field, "")} /> : null;
  return (
    <>
      {before} <StepNumber field={`over.${field}`} value={value} onChange={(to) => onChange(field, to)} />
      {after}
      {mayWrite && <TakeOut says={takeOut} onTake={() => onChange(field, null)} />}
    </>
  );
}

/** A figure that is given in one of two ways, such as a kick's setback or its angle. */
function EitherBy({ step, onChange, by: what, choices }: Props & Omit<EitherPart, "show">) {
  const { called, mayWrite } = useStepContext();
  const fields = step as unknown as Fields;
  const given = choices.find(({ value }) => fields[value] !== null && fields[value] !== undefined);
  const by = (given ?? choices[0])?.value ?? "";
  const choose = (next: string) => next !== by && onChange({ ...step, [by]: null, [next]: "" } as Step, "");
  return (
    <>
      <Select
        label={`${called}, ${what}`}
        value={by}
        choices={choices}
        disabled={!mayWrite}
        onChoose={choose}
      />{" "}
      <StepNumber
        field={by}
        value={(fields[by] as Written | null | undefined) ?? ""}
        {...(FIGURES[by] ?? {})}
        onChange={(value) => onChange({ ...step, [by]: by === "shots" ? asCount(value) : value } as Step, by)}
      />
    </>
  );
}

/** The usual figures of those that are no lengths. */
const FIGURES: Record<string, { steps: string[]; unit?: string }> = {
  shots: { steps: ["3", "4", "5", "6", "9", "10", "12", "15", "18"] },
  kick_angle: { steps: ANGLES, unit: "°" },
  shot_angle: { steps: ["3", "5", "6", "7 1/2", "9", "10", "15"], unit: "°" },
};

const RADIUS_BY = [
  { value: "given" as const, label: t("withARadiusOf") },
  { value: "around" as const, label: t("aroundAPipeOf"), hint: t("itsSizeItsRadiusThe") },
];

/** A sweep's radius as measured, or from the pipe that it goes around. */
function RadiusBy({ step, onChange }: Props) {
  const { called, mayWrite } = useStepContext();
  if (step.kind !== "sweep") return null;
  const { around } = step;
  const set = (next: Partial<NonNullable<typeof around>>, field: string) =>
    onChange({ ...step, around: { ...around, ...next } } as Step, `around.${field}`);
  const choose = (by: "given" | "around") =>
    onChange(
      { ...step, around: by === "around" ? { trade_size: "2", radius: "", gap: "1 1/2" } : null } as Step,
      "",
    );
  return (
    <>
      <Select
        label={t("radiusBy", { called })}
        value={around ? "around" : "given"}
        choices={RADIUS_BY}
        disabled={!mayWrite}
        onChoose={(by) => (by === "around") !== Boolean(around) && choose(by)}
      />{" "}
      {around ? (
        <>
          <Select
            label={t("sizeOfThePipeThat", { called })}
            value={around.trade_size}
            choices={TRADE_SIZES}
            disabled={!mayWrite}
            onChoose={(trade_size) => set({ trade_size }, "")}
          />{" "}
          {t("withARadiusOf")}{" "}
          <StepNumber
            field="around.radius"
            value={around.radius}
            onChange={(radius) => set({ radius }, "radius")}
          />
          ,{" "}
          <StepNumber field="around.gap" value={around.gap ?? "0"} onChange={(gap) => set({ gap }, "gap")} />{" "}
          {t("clearOfIt")}
        </>
      ) : (
        <StepNumber
          field="radius"
          value={step.radius ?? ""}
          onChange={(radius) => onChange({ ...step, radius } as Step, "radius")}
        />
      )}
    </>
  );
}
