import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { DropdownMenu } from "radix-ui";
import type { KeyboardEvent } from "react";
import type { Step } from "@/api/types";
import { Button } from "@/ui/button";
import { BendTab, DownIcon, GripIcon, MoreIcon, PlusIcon, RemoveIcon, UpIcon } from "@/ui/icons";
import { MENU, MENU_ITEM } from "@/ui/menu";
import { AddStep } from "./add-step";
import { Findings } from "./findings";
import { placed, useRunContext } from "./run-context";
import { StepSentence } from "./step-sentence";
import type { StepActions } from "./use-steps";
import { STEP_WORDS } from "./words";

interface Props {
  step: Step;
  index: number;
  id: string;
  count: number;
  actions: StepActions;
}

/** One step of the walk: its sentence, what was found there, its bends, and what can be done with it. */
export function StepRow({ step, index, id, count, actions }: Props) {
  const { plan, chosen, choose, mayWrite } = useRunContext();
  const sortable = useSortable({ id, disabled: !mayWrite });
  const problems = placed(plan?.problems, `steps.${index}`);
  const bends = plan?.bends.filter((bend) => bend.step === index) ?? [];
  const isChosen = chosen === index;
  return (
    <li
      ref={sortable.setNodeRef}
      style={{ transform: CSS.Translate.toString(sortable.transform), transition: sortable.transition }}
      data-step={index}
      aria-current={isChosen ? "step" : undefined}
      onFocus={() => choose(index)}
      onPointerDown={() => choose(index)}
      onKeyDown={(event) => mayWrite && onShortcut(event, index, actions)}
      className={`group relative flex gap-2 border-b border-line/60 py-2 pr-2 pl-1 ${sortable.isDragging ? "z-10 bg-paper opacity-80 shadow-lg" : ""} ${isChosen ? "border-l-4 border-l-accent bg-tint/50" : "border-l-4 border-l-transparent"}`}
    >
      <button
        type="button"
        ref={sortable.setActivatorNodeRef}
        {...sortable.attributes}
        {...sortable.listeners}
        disabled={!mayWrite}
        aria-label={`Step ${index + 1}: drag, or space and arrows, to move`}
        className="tape flex w-7 shrink-0 touch-none flex-col items-center rounded-sm pt-1.5 text-[17px] text-soft enabled:cursor-grab enabled:hover:bg-well"
      >
        {index + 1}
        {mayWrite && <GripIcon width={14} height={14} />}
      </button>
      <div className={`min-w-0 flex-1 ${step.muted ? "opacity-55" : ""}`}>
        {step.muted && <p className="text-[15px] font-semibold">Left out of the run</p>}
        <StepSentence
          step={step}
          index={index}
          onChange={(next, field) => actions.change(index, next, field)}
        />
        <Findings problems={problems} id={`problems-${index}`} />
        <div className="mt-0.5 flex min-h-8 flex-wrap items-center gap-1">
          <Bends numbers={bends.map((bend) => bend.number)} chosen={isChosen} />
          <RowControls
            step={step}
            index={index}
            count={count}
            actions={actions}
            hasBends={bends.length > 0}
          />
        </div>
      </div>
    </li>
  );
}

const MOST_TABS = 5;

function Bends({ numbers, chosen }: { numbers: number[]; chosen: boolean }) {
  const [first, last] = [numbers[0], numbers.at(-1)];
  if (first === undefined || last === undefined) return null;
  if (numbers.length <= MOST_TABS)
    return numbers.map((number) => <BendTab key={number} number={number} chosen={chosen} />);
  return (
    <>
      <BendTab number={first} chosen={chosen} /> to <BendTab number={last} chosen={chosen} />
    </>
  );
}

interface ControlProps extends Omit<Props, "id"> {
  hasBends: boolean;
}

function RowControls({ step, index, count, actions, hasBends }: ControlProps) {
  const { choose, open, side, mayWrite } = useRunContext();
  const one = `Step ${index + 1}`;
  return (
    <span className="ml-auto flex items-center opacity-70 group-focus-within:opacity-100 group-hover:opacity-100">
      {hasBends && (
        <Button
          look="quiet"
          aria-label={`${one}: other ways, and why`}
          aria-pressed={side === "step"}
          onClick={() => {
            choose(index);
            open("step");
          }}
        >
          Ways, why
        </Button>
      )}
      {mayWrite && (
        <>
          <AddStep
            onAdd={(kind) => actions.insert(index, kind)}
            trigger={
              <Button look="quiet" aria-label={`Add a step before step ${index + 1}`}>
                <PlusIcon />
              </Button>
            }
          />
          <DropdownMenu.Root>
            <DropdownMenu.Trigger asChild>
              <Button look="quiet" aria-label={`${one}: more`}>
                <MoreIcon />
              </Button>
            </DropdownMenu.Trigger>
            <DropdownMenu.Portal>
              <DropdownMenu.Content align="end" className={MENU}>
                <Item
                  keys="Alt+↑"
                  disabled={index === 0}
                  onSelect={() => actions.move(index, index - 1)}
                  label="Move up"
                >
                  <UpIcon />
                </Item>
                <Item
                  keys="Alt+↓"
                  disabled={index === count - 1}
                  onSelect={() => actions.move(index, index + 1)}
                  label="Move down"
                >
                  <DownIcon />
                </Item>
                <Item keys="Alt+C" onSelect={() => actions.duplicate(index)} label="Make another like it" />
                <Item
                  keys="Alt+O"
                  onSelect={() => actions.mute(index)}
                  label={step.muted ? "Put it back into the run" : "Leave it out of the run"}
                />
                <Item
                  keys="Alt+Delete"
                  onSelect={() => actions.remove(index)}
                  label={`Remove this ${STEP_WORDS[step.kind].toLowerCase()}`}
                >
                  <RemoveIcon />
                </Item>
              </DropdownMenu.Content>
            </DropdownMenu.Portal>
          </DropdownMenu.Root>
        </>
      )}
    </span>
  );
}

function Item(props: {
  label: string;
  keys: string;
  onSelect: () => void;
  disabled?: boolean;
  children?: React.ReactNode;
}) {
  return (
    <DropdownMenu.Item onSelect={props.onSelect} disabled={props.disabled ?? false} className={MENU_ITEM}>
      <span className="w-5">{props.children}</span> {props.label}
      <span className="ml-auto text-[15px] text-soft">{props.keys}</span>
    </DropdownMenu.Item>
  );
}

/** The row's own keys, wherever in the row one types. */
function onShortcut(event: KeyboardEvent, index: number, actions: StepActions) {
  if (!event.altKey || event.ctrlKey || event.metaKey) return;
  const act = {
    ArrowUp: () => actions.move(index, index - 1),
    ArrowDown: () => actions.move(index, index + 1),
    KeyC: () => actions.duplicate(index),
    KeyO: () => actions.mute(index),
    Delete: () => actions.remove(index),
  }[event.code];
  if (!act) return;
  event.preventDefault();
  event.stopPropagation();
  act();
}
