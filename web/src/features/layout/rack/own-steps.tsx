import { useState } from "react";
import type { Finding, RackPipe, Step } from "@/api/types";
import { placed, readUnder, usePlanned, useWork } from "@/features/layout/run-context";
import { AddStep } from "@/features/layout/steps/add-step";
import { type End, EndSentence } from "@/features/layout/steps/end-rows";
import { Findings } from "@/features/layout/steps/findings";
import { newStep } from "@/features/layout/steps/new-step";
import { StepContext } from "@/features/layout/steps/step-context";
import { StepSentence } from "@/features/layout/steps/step-sentence";
import { kindWithin } from "@/trade/kinds";
import { Button } from "@/ui/button";
import { MoreIcon, PlusIcon } from "@/ui/icons";
import { Menu, MenuItem } from "@/ui/menu";
import { Pattern } from "@/ui/pattern";
import { Select } from "@/ui/select";
import { t } from "@/words/layout";

interface Props {
  pipe: RackPipe;
  at: number;
  findings: Finding[];
  onChange: (next: Partial<RackPipe>, field: string) => void;
}

/** What a pipe does once it has left the rack: its own steps and its own end, as they stand in the list of steps. */
export function OwnSteps({ pipe, at, findings, onChange }: Props) {
  const { draft, mayWrite } = useWork();
  const { document } = draft;
  const leaves = pipe.leaves ?? 0;
  const steps = pipe.steps ?? [];
  const end = pipe.end ?? ({ at: "" } as End);
  const called = t("own.pipe", { at: at + 2 });
  const set = (next: Step[], field = "") => onChange({ steps: next }, field && `steps.${field}`);
  const add = (kind: Step["kind"]) => {
    const walked = [...document.steps.slice(0, leaves), ...steps];
    set([...steps, newStep(kind, { ...document, steps: walked }, walked.length)]);
  };
  return (
    <section
      aria-label={t("own.title", { called })}
      className="my-1 border-l-4 border-l-accent bg-tint/50 pl-2"
    >
      <LeavesAfter leaves={leaves} called={called} onChange={(next) => onChange({ leaves: next }, "")} />
      <ol className="flex flex-col">
        {steps.map((step, index) => (
          <OwnStep
            // A step is what stands at its place.
            // biome-ignore lint/suspicious/noArrayIndexKey: see above
            key={index}
            step={step}
            called={`${called}, step ${index + 1}`}
            place={`rack.pipes.${at}.steps.${index}`}
            findings={findings}
            onChange={(next, field) => set(steps.with(index, next), field && `${index}.${field}`)}
            onMove={index ? () => set(swapped(steps, index)) : undefined}
            onRemove={() => set(steps.toSpliced(index, 1))}
          />
        ))}
      </ol>
      {mayWrite && (
        <AddStep
          onAdd={add}
          trigger={
            <Button look="quiet" className="px-0!" aria-label={t("own.add", { called })}>
              <PlusIcon /> {t("step.add")}
            </Button>
          }
        />
      )}
      <p className="text-base leading-8">
        <EndSentence
          end={end}
          place={`rack.pipes.${at}.end`}
          called={`${called}, end`}
          findings={findings}
          onChange={(next, field) => onChange({ end: next }, field && `end.${field}`)}
        />
        .
      </p>
      <Findings findings={placed(findings, `rack.pipes.${at}.end`)} id={`findings-rack.pipes.${at}.end`} />
    </section>
  );
}

const swapped = (steps: Step[], index: number): Step[] => {
  const [one, other] = [steps[index - 1], steps[index]];
  return one && other ? steps.toSpliced(index - 1, 2, other, one) : steps;
};

interface LeavesProps {
  leaves: number;
  called: string;
  onChange: (leaves: number) => void;
}

/** The lead's last step that it goes along with. */
function LeavesAfter({ leaves, called, onChange }: LeavesProps) {
  const { draft, mayWrite } = useWork();
  const choices = [
    { value: "0", label: t("own.at_start") },
    ...draft.document.steps.map((step, index) => ({
      value: String(index + 1),
      label: t("own.after_step", { step: index + 1 }),
      hint: kindWithin(step.kind),
    })),
  ];
  const known = choices.some(({ value }) => value === String(leaves));
  return (
    <p className="text-base leading-8">
      <Pattern
        sentence={t("rack.leaves")}
        slots={{
          where: (
            <Select
              label={t("own.leaves", { called })}
              value={String(leaves)}
              choices={
                known
                  ? choices
                  : [...choices, { value: String(leaves), label: t("own.after_step", { step: leaves }) }]
              }
              disabled={!mayWrite}
              onChoose={(next) => onChange(Number(next))}
            />
          ),
        }}
      />
    </p>
  );
}

interface StepProps {
  step: Step;
  called: string;
  place: string;
  findings: Finding[];
  onChange: (next: Step, field: string) => void;
  onMove: (() => void) | undefined;
  onRemove: () => void;
}

function OwnStep({ step, called, place, findings, onChange, onMove, onRemove }: StepProps) {
  const { mayWrite } = useWork();
  const { plan } = usePlanned();
  const [chosen, setChosen] = useState(false);
  const here = placed(findings, place);
  const read = readUnder(plan, place);
  return (
    <li className="flex gap-1 border-b border-line/60" onFocus={() => setChosen(true)}>
      <div className="min-w-0 flex-1">
        <StepContext value={{ place, called, mayWrite, chosen, racked: false, findings: here, read }}>
          <StepSentence step={step} onChange={onChange} />
        </StepContext>
        <Findings findings={here} id={`findings-${place}`} />
      </div>
      {mayWrite && (
        <Menu
          align="end"
          trigger={
            <Button look="quiet" aria-label={t("step.more", { called })}>
              <MoreIcon />
            </Button>
          }
        >
          <MenuItem onSelect={() => onMove?.()} disabled={!onMove}>
            {t("step.up")}
          </MenuItem>
          <MenuItem onSelect={onRemove}>{t("step.remove", { kind: kindWithin(step.kind) })}</MenuItem>
        </Menu>
      )}
    </li>
  );
}
