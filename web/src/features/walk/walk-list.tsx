import { DropdownMenu } from "radix-ui";
import type { CSSProperties, ReactNode } from "react";
import type { Problem, RunDocument, Step } from "@/api/types";
import { Button } from "@/ui/button";
import { BendTab, DownIcon, EndMark, PlusIcon, RemoveIcon, UpIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { TapeField } from "@/ui/tape-field";
import { type RunContext, useRunContext } from "./run-page";
import { newStep, StepSentence } from "./step-sentence";
import { HEADINGS } from "./words";

/** The run as sentences, in the order of the walk, every number editable where it stands. */
export function WalkList() {
  const run = useRunContext();
  const { draft, edit, mayWrite } = run;
  const { document } = draft;

  const setSteps = (steps: Step[], place = "") => edit({ ...document, steps }, place);
  const insert = (index: number, kind: Step["kind"]) => {
    setSteps(document.steps.toSpliced(index, 0, newStep(kind, document, index)));
    run.choose(index);
  };
  const move = (from: number, to: number) => {
    const step = document.steps[from];
    if (!step || to < 0 || to >= document.steps.length) return;
    setSteps(document.steps.toSpliced(from, 1).toSpliced(to, 0, step));
    run.choose(to);
  };

  return (
    <ol aria-label="Walk list" className="flex flex-col">
      <StartRow />
      {document.steps.map((step, index) => (
        <Row
          // Steps have no identity of their own: they are what stands at their place.
          // biome-ignore lint/suspicious/noArrayIndexKey: see above
          key={index}
          index={index}
          run={run}
          controls={
            mayWrite && (
              <>
                <Button
                  look="quiet"
                  aria-label={`Step ${index + 1}: move up`}
                  disabled={index === 0}
                  onClick={() => move(index, index - 1)}
                >
                  <UpIcon />
                </Button>
                <Button
                  look="quiet"
                  aria-label={`Step ${index + 1}: move down`}
                  disabled={index === document.steps.length - 1}
                  onClick={() => move(index, index + 1)}
                >
                  <DownIcon />
                </Button>
                <AddStep
                  label={`Add a step before step ${index + 1}`}
                  onAdd={(kind) => insert(index, kind)}
                  compact
                />
                <Button
                  look="quiet"
                  aria-label={`Step ${index + 1}: remove`}
                  onClick={() => setSteps(document.steps.toSpliced(index, 1))}
                >
                  <RemoveIcon />
                </Button>
              </>
            )
          }
        >
          <StepSentence
            step={step}
            index={index}
            onChange={(next, field) => setSteps(document.steps.with(index, next), `steps.${index}.${field}`)}
          />
        </Row>
      ))}
      {mayWrite && (
        <li className="border-b border-line/60 py-1.5 pl-12">
          <AddStep label="Add what you meet next" onAdd={(kind) => insert(document.steps.length, kind)} />
        </li>
      )}
      <EndRow />
    </ol>
  );
}

function StartRow() {
  const { draft, edit, mayWrite, plan } = useRunContext();
  const { document } = draft;
  const { start } = document;
  const change = (next: RunDocument["start"], field: string) =>
    edit({ ...document, start: next }, `start.${field}`);
  return (
    <li className="flex gap-3 border-b border-line/60 px-3 py-2.5">
      <EndMark end="A" size={26} />
      <div className="min-w-0 flex-1">
        <p className="text-[17px] leading-9">
          Start at{" "}
          <NameField
            label="Start box"
            value={start.name ?? ""}
            disabled={!mayWrite}
            onChange={(name) => change({ ...start, name }, "name")}
          />
          , pipe runs{" "}
          <Select
            label="First heading"
            value={start.heading}
            choices={HEADINGS}
            disabled={!mayWrite}
            onChoose={(heading) => change({ ...start, heading }, "")}
          />
          .
        </p>
        <Findings problems={placed(plan?.problems, "start")} />
      </div>
    </li>
  );
}

function EndRow() {
  const { draft, edit, mayWrite, plan } = useRunContext();
  const { document } = draft;
  const { end } = document;
  const problems = placed(plan?.problems, "end");
  const change = (next: RunDocument["end"], field: string) =>
    edit({ ...document, end: next }, `end.${field}`);
  return (
    <li className="flex gap-3 px-3 py-2.5">
      <EndMark end="B" size={26} />
      <div className="min-w-0 flex-1">
        <p className="text-[17px] leading-9">
          End at{" "}
          <NameField
            label="End box"
            value={end.name ?? ""}
            disabled={!mayWrite}
            onChange={(name) => change({ ...end, name }, "name")}
          />
          , pipe seats at{" "}
          <TapeField
            label="End, seat at"
            value={end.at ?? ""}
            disabled={!mayWrite}
            invalid={problems.some(stops)}
            describedBy={problems.length ? "problems-end" : undefined}
            inches={inchesAt(useRunContext(), "end.at")}
            onChange={(at) => change({ ...end, at }, "at")}
          />
          .
        </p>
        <Findings problems={problems} id="problems-end" />
      </div>
    </li>
  );
}

export function NameField(props: {
  label: string;
  value: string;
  disabled: boolean;
  onChange: (value: string) => void;
}) {
  const { label, value, disabled, onChange } = props;
  return (
    <input
      aria-label={label}
      value={value}
      maxLength={80}
      placeholder="name it"
      disabled={disabled}
      onChange={(event) => onChange(event.target.value)}
      style={{ "--fallback-width": `${Math.max(value.length, 6) + 2}ch` } as CSSProperties}
      className="grows h-7 max-w-full rounded-sm border-b-2 border-dotted border-accent/60 bg-transparent px-0.5 font-semibold text-ink hover:bg-tint focus:bg-tint"
    />
  );
}

interface RowProps {
  index: number;
  run: RunContext;
  controls: ReactNode;
  children: ReactNode;
}

function Row({ index, run, controls, children }: RowProps) {
  const { plan, chosen, choose } = run;
  const problems = placed(plan?.problems, `steps.${index}`);
  const bends = plan?.bends.filter((bend) => bend.step === index) ?? [];
  const isChosen = chosen === index;
  return (
    <li
      aria-current={isChosen ? "step" : undefined}
      onFocus={() => choose(index)}
      onPointerDown={() => choose(index)}
      className={`group flex gap-3 border-b border-line/60 py-2.5 pr-2 pl-2 ${isChosen ? "border-l-4 border-l-accent bg-tint/50" : "border-l-4 border-l-transparent"}`}
    >
      <span className="tape w-5 shrink-0 text-center text-[17px] leading-9 text-soft">{index + 1}</span>
      <div className="min-w-0 flex-1">
        {children}
        <Findings problems={problems} id={`problems-${index}`} />
        <div className="mt-0.5 flex h-8 items-center gap-1">
          {bends.map((bend) => (
            <BendTab key={bend.number} number={bend.number} chosen={isChosen} />
          ))}
          <span className="ml-auto flex opacity-55 group-focus-within:opacity-100 group-hover:opacity-100">
            {controls}
          </span>
        </div>
      </div>
    </li>
  );
}

/** What is met on the way; the bend is the answer. */
const MET: { kind: Step["kind"]; met: string; answer: string }[] = [
  { kind: "bend", met: "A wall, a corner, a turn", answer: "90" },
  { kind: "offset", met: "Another level, something to clear", answer: "offset" },
];

function AddStep({
  label,
  onAdd,
  compact = false,
}: {
  label: string;
  onAdd: (kind: Step["kind"]) => void;
  compact?: boolean;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button look="quiet" aria-label={label}>
          <PlusIcon /> {!compact && label}
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          className="z-50 min-w-72 rounded-md border border-ink bg-paper p-1 shadow-lg"
        >
          {MET.map((choice) => (
            <DropdownMenu.Item
              key={choice.kind}
              onSelect={() => onAdd(choice.kind)}
              className="flex min-h-11 items-center justify-between gap-6 rounded-sm px-3 outline-none data-highlighted:bg-tint"
            >
              {choice.met} <span className="text-[15px] text-soft">{choice.answer}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Findings({ problems, id }: { problems: Problem[]; id?: string }) {
  if (!problems.length) return null;
  return (
    <div id={id} className="mt-1 flex flex-col gap-1">
      {problems.map((problem) => (
        <Notice key={problem.code + problem.place + problem.says} severity={problem.severity}>
          {problem.says} {problem.remedy && <em className="not-italic font-semibold">{problem.remedy}</em>}
        </Notice>
      ))}
    </div>
  );
}

const stops = (problem: Problem): boolean => problem.severity === "stop";

/** The findings at a place of the document or below it. */
export function placed(problems: Problem[] | undefined, place: string): Problem[] {
  return (problems ?? []).filter(
    (problem) => problem.place === place || problem.place.startsWith(`${place}.`),
  );
}

export function inchesAt(run: RunContext, place: string): number | undefined {
  return run.plan?.fields.find((field) => field.place === place)?.inches;
}
