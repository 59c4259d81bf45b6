import { useEffect } from "react";
import type { Step } from "@/api/types";
import { isToMeasure, useFocus, useWork } from "@/features/layout/run-context";
import { Findings } from "@/features/layout/steps/findings";
import { headingBefore } from "@/features/layout/steps/new-step";
import { StepContext } from "@/features/layout/steps/step-context";
import { Field, WayOfGiving } from "@/features/layout/steps/step-sentence";
import { useContextOf } from "@/features/layout/steps/use-context-of";
import { useSteps } from "@/features/layout/steps/use-steps";
import { fieldWord, kindOf } from "@/trade/kinds";
import type { Heading } from "@/trade/words";
import { withWritten, written } from "@/trade/written";
import { clauseWord } from "@/words/clauses";
import { Directions } from "./directions";
import { Figure } from "./figure";
import { askedOf, isFigure } from "./questions";
import { TapeDrawing } from "./tape-drawing";

interface Props {
  index: number;
  field: string;
  goOn: () => void;
}

/** One thing of a step: which way, or a figure with what is chosen beside it. */
export function StepQuestion({ index, field, goOn }: Props) {
  const { draft } = useWork();
  const { choose } = useFocus();
  const step = draft.document.steps[index];
  useEffect(() => choose(index), [choose, index]);
  if (!step) return null;
  const asked = askedOf(step).find((one) => one.field === field);
  const isWay = !isFigure(draft.document, { of: "step", index, field });
  return isWay ? (
    <WayQuestion step={step} index={index} field={field} goOn={goOn} />
  ) : (
    <FigureQuestion step={step} index={index} field={field} beside={asked?.beside ?? []} goOn={goOn} />
  );
}

/** What is asked in so many words: of this kind, or of every kind that has the field. */
const wordOf = (group: string, step: Step, field: string): string | undefined =>
  clauseWord(`${group}.${step.kind}.${field}`) ?? clauseWord(`${group}.${field}`);

function WayQuestion({ step, index, field, goOn }: Props & { step: Step }) {
  const { draft } = useWork();
  const actions = useSteps();
  const turn = (way: Heading) => {
    actions.change(index, withWritten(step, { [field]: way }), "");
    goOn();
  };
  return (
    <>
      <h2 className="text-xl font-bold">{wordOf("ask", step, field)}</h2>
      <Directions
        chosen={written(step, field) as Heading | undefined}
        along={headingBefore(draft.document, index)}
        onChoose={turn}
      />
    </>
  );
}

function FigureQuestion({ step, index, field, beside, goOn }: Props & { step: Step; beside: string[] }) {
  const actions = useSteps();
  const context = useContextOf(index);
  const change = (next: Step, place: string) => actions.change(index, next, place);
  const { ways } = kindOf(step.kind);
  const part = { step, onChange: change };
  return (
    <Figure
      drawn={<TapeDrawing step={step} field={field} />}
      asks={wordOf("ask", step, field) ?? fieldWord(field)}
      does={wordOf("tape", step, field)}
      goOn={goOn}
    >
      <StepContext value={context}>
        <p className="flex flex-wrap items-center gap-x-2 text-[17px] leading-10">
          {beside.map((name) =>
            name in ways ? (
              <WayOfGiving key={name} name={name} {...part} />
            ) : (
              <Field key={name} field={name} {...part} />
            ),
          )}
          <Field field={field} {...part} />
        </p>
        <Findings
          findings={context.findings.filter((one) => !isToMeasure(one))}
          id={`findings-${context.place}`}
        />
      </StepContext>
    </Figure>
  );
}
