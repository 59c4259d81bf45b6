import { useContext } from "react";
import type { Step, Written } from "@/api/types";
import { RackWayClause } from "@/features/layout/rack/rack-way";
import { placed } from "@/features/layout/run-context";
import { asCount } from "@/trade/counts";
import { type Clause, choiceOf, type FieldOfKind, fieldWord, kindOf } from "@/trade/kinds";
import { HEADINGS, TRADE_SIZES } from "@/trade/words";
import { fieldOf, holds, withWritten, written } from "@/trade/written";
import { Pattern } from "@/ui/pattern";
import { type Choice, Select } from "@/ui/select";
import { TapeContext } from "@/ui/tape-field";
import { Term } from "@/ui/term";
import { clauseWord } from "@/words/clauses";
import { AddFigure, TakeOut } from "./add-figure";
import { NameField } from "./name-field";
import { givenAs, wayOfGiving } from "./new-step";
import { useStepContext } from "./step-context";
import { StepNumber } from "./step-number";

interface Props {
  step: Step;
  onChange: (next: Step, field: string) => void;
}

/** A step as one sentence, every number of it editable where it stands. */
export function StepSentence({ step, onChange }: Props) {
  const { racked } = useStepContext();
  return (
    <p className="text-[17px] leading-9">
      <Clauses clauses={kindOf(step.kind).sentence} step={step} onChange={onChange} />.
      {racked && <RackWayClause step={step} onChange={onChange} />}
    </p>
  );
}

function Clauses({ clauses, ...rest }: Props & { clauses: Clause[] }) {
  const { chosen } = useStepContext();
  return clauses.map((clause) => {
    if (clause.adds) return <AddedClause key={clause.says} clause={clause} adds={clause.adds} {...rest} />;
    const applies = holds(clause.when, rest.step) || (clause.onRequest && chosen);
    return applies ? <Said key={clause.says} says={clause.says} {...rest} /> : null;
  });
}

function Said({ says, ...rest }: Props & { says: string }) {
  return (
    <Pattern sentence={clauseWord(`says.${says}`) ?? ""} slots={(name) => <Slot name={name} {...rest} />} />
  );
}

/** A clause that few need: a button, until it is added. */
function AddedClause({ clause, adds, step, onChange }: Props & { clause: Clause; adds: string[] }) {
  const { chosen, called, mayWrite } = useStepContext();
  const { says } = clause;
  const all = (value: string | null) => Object.fromEntries(adds.map((key) => [key, value]));
  if (adds.every((key) => written(step, key) === undefined)) {
    const add = () => onChange(withWritten(step, all("")), adds[0] ?? "");
    return chosen && mayWrite ? <AddFigure says={clauseWord(`says.${says}.add`) ?? ""} onAdd={add} /> : null;
  }
  return (
    <>
      <Said says={says} step={step} onChange={onChange} />
      {mayWrite && (
        <TakeOut
          says={`${called}, ${clauseWord(`says.${says}.remove`)}`}
          onTake={() => onChange(withWritten(step, all(null)), "")}
        />
      )}
    </>
  );
}

function Slot({ name, ...props }: Props & { name: string }) {
  if (name.startsWith("term."))
    return (
      <strong>
        <Term meaning={clauseWord(`${name}.meaning`) ?? ""}>{clauseWord(name)}</Term>
      </strong>
    );
  return name in kindOf(props.step.kind).ways ? (
    <ByWay name={name} {...props} />
  ) : (
    <Field field={name} {...props} />
  );
}

/** A figure that is given in one of a few ways, such as a kick's setback or its angle. */
function ByWay({ name, step, onChange }: Props & { name: string }) {
  const now = wayOfGiving(step, kindOf(step.kind).ways[name] ?? []);
  return (
    <>
      <WayOfGiving name={name} step={step} onChange={onChange} />{" "}
      <Clauses clauses={now?.sentence ?? []} step={step} onChange={onChange} />
    </>
  );
}

/** In which way it is given. */
export function WayOfGiving({ name, step, onChange }: Props & { name: string }) {
  const { called, mayWrite } = useStepContext();
  const tape = useContext(TapeContext);
  const ways = kindOf(step.kind).ways[name] ?? [];
  const now = wayOfGiving(step, ways);
  const choose = (value: string) => {
    const way = ways.find((one) => one.way === value);
    if (way && way !== now) onChange(givenAs(step, way, tape), "");
  };
  return (
    <Select
      label={`${called}, ${clauseWord(`ways.${name}`)}`}
      value={now?.way ?? ""}
      choices={ways.map(({ way }) => choiceOf(way, `way.${name}.${way}`))}
      disabled={!mayWrite}
      onChoose={choose}
    />
  );
}

/** What a field's choices are called; of one that is typed: none. */
function choicesOf(key: string, { unit, offered }: FieldOfKind): Choice<string>[] | null {
  if (unit === "direction") return HEADINGS;
  if (unit === "size") return TRADE_SIZES;
  return unit === "choice" ? (offered ?? []).map((one) => choiceOf(one, `choice.${key}.${one}`)) : null;
}

/** A field where it stands in the sentence: a figure to type, a name, or a choice. */
export function Field({ field: key, step, onChange }: Props & { field: string }) {
  const { place, called, mayWrite, findings } = useStepContext();
  const field = fieldOf(kindOf(step.kind), key);
  const value = written(step, key) as Written | undefined;
  const label = `${called}, ${fieldWord(key)}`;
  const set = (next: unknown, place = key) => onChange(withWritten(step, { [key]: next }), place);
  const choices = choicesOf(key, field);
  if (choices)
    return (
      <Select<string>
        label={label}
        value={String(value ?? field.default ?? "")}
        choices={choices}
        disabled={!mayWrite}
        invalid={placed(findings, `${place}.${key}`).length > 0}
        onChoose={(next) => set(next, "")}
      />
    );
  if (field.unit === "name")
    return <NameField label={label} value={String(value ?? "")} disabled={!mayWrite} onChange={set} />;
  return (
    <StepNumber
      field={key}
      value={value ?? field.default ?? ""}
      {...(field.offered ? { steps: field.offered } : {})}
      {...(field.unit === "angle" ? { unit: "°" } : {})}
      passedOver={field.late ?? false}
      onChange={(next) => set(field.unit === "count" ? asCount(next) : next)}
    />
  );
}
