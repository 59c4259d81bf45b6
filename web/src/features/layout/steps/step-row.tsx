import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { type KeyboardEvent, memo, type ReactNode, type SyntheticEvent } from "react";
import type { Step } from "@/api/types";
import { kindWithin } from "@/trade/kinds";
import { Button } from "@/ui/button";
import { BendTab, DownIcon, GripIcon, MoreIcon, PlusIcon, RemoveIcon, UpIcon } from "@/ui/icons";
import { Menu, MenuItem } from "@/ui/menu";
import { t } from "@/words/layout";
import { AddStep } from "./add-step";
import { FoundHere } from "./findings";
import { StepContext, useStepContext } from "./step-context";
import { StepSentence } from "./step-sentence";
import type { StepActions } from "./use-steps";

interface Props {
  step: Step;
  index: number;
  count: number;
  actions: StepActions;
  bends: number[];
  waysOpen: boolean;
}

/** One step of the run, where it can be dragged and chosen. */
export function StepRow(props: Props & { id: string; context: StepContext }) {
  const { id, index, actions, context } = props;
  const sortable = useSortable({ id, disabled: !context.mayWrite });
  const choose = () => actions.choose(index);
  return (
    <li
      ref={sortable.setNodeRef}
      style={{ transform: CSS.Translate.toString(sortable.transform), transition: sortable.transition }}
      data-step={index}
      aria-current={context.chosen ? "step" : undefined}
      // A chosen row shows more, so what is pressed must not be moved from under the finger before it is lifted.
      onFocus={(event) => isWithin(event) && event.target.matches("input, :focus-visible") && choose()}
      onClick={(event) => isWithin(event) && choose()}
      onKeyDown={(event) => context.mayWrite && onShortcut(event, index, actions)}
      className={`relative flex gap-2 border-b border-line/60 py-2 pr-2 pl-1 ${sortable.isDragging ? "z-10 bg-paper opacity-80 shadow-lg" : ""} ${context.chosen ? "border-l-4 border-l-accent bg-tint/50" : "border-l-4 border-l-transparent"}`}
    >
      <button
        type="button"
        ref={sortable.setActivatorNodeRef}
        {...sortable.attributes}
        {...sortable.listeners}
        disabled={!context.mayWrite}
        aria-label={t("step.drag", { index: index + 1 })}
        className="tape flex w-7 shrink-0 touch-none flex-col items-center rounded-sm pt-1.5 text-[17px] text-soft enabled:cursor-grab enabled:hover:bg-well"
      >
        {index + 1}
        {context.mayWrite && <GripIcon width={14} height={14} />}
      </button>
      <StepContext value={context}>
        <StepContent
          step={props.step}
          index={index}
          count={props.count}
          actions={actions}
          bends={props.bends}
          waysOpen={props.waysOpen}
        />
      </StepContext>
    </li>
  );
}

/** Whether it happened in the row itself, not in a menu that belongs to it. */
const isWithin = ({ currentTarget, target }: SyntheticEvent): boolean =>
  currentTarget.contains(target as Node);

/** Its sentence, what was found there, its bends, and what can be done with it; drawn anew only when these change. */
const StepContent = memo(function StepContent(props: Props) {
  const { step, index, actions, bends } = props;
  const { place, findings, chosen, mayWrite } = useStepContext();
  return (
    <div className={`min-w-0 flex-1 ${step.muted ? "text-soft line-through decoration-1" : ""}`}>
      {step.muted && <p className="text-[15px] font-semibold">{t("step.left_out")}</p>}
      <StepSentence step={step} onChange={(next, field) => actions.change(index, next, field)} />
      <FoundHere findings={findings} id={`findings-${place}`} onTake={mayWrite ? actions.mend : undefined} />
      <div className="mt-0.5 flex min-h-8 flex-wrap items-center gap-1">
        <Bends numbers={bends} chosen={chosen} />
        <RowControls {...props} />
      </div>
    </div>
  );
});

const MOST_TABS = 5;

function Bends({ numbers, chosen }: { numbers: number[]; chosen: boolean }) {
  const [first, last] = [numbers[0], numbers.at(-1)];
  if (first === undefined || last === undefined) return null;
  if (numbers.length <= MOST_TABS)
    return numbers.map((number) => <BendTab key={number} number={number} chosen={chosen} />);
  return (
    <>
      <BendTab number={first} chosen={chosen} /> {t("step.alternatives")}{" "}
      <BendTab number={last} chosen={chosen} />
    </>
  );
}

function RowControls({ step, index, count, actions, bends, waysOpen }: Props) {
  const { mayWrite } = useStepContext();
  const one = t("step.called", { index: index + 1 });
  return (
    <span className="ml-auto flex items-center">
      {bends.length > 0 && (
        <Button
          look="quiet"
          aria-label={t("step.ways_of", { one })}
          aria-pressed={waysOpen}
          onClick={() => actions.openWays(index)}
        >
          {t("step.ways")}
        </Button>
      )}
      {mayWrite && (
        <>
          <AddStep
            onAdd={(kind) => actions.insert(index, kind)}
            trigger={
              <Button look="quiet" aria-label={t("step.add_before", { index: index + 1 })}>
                <PlusIcon />
              </Button>
            }
          />
          <Menu
            align="end"
            trigger={
              <Button look="quiet" aria-label={t("step.more", { called: one })}>
                <MoreIcon />
              </Button>
            }
          >
            <Item
              keys="Alt+↑"
              disabled={index === 0}
              onSelect={() => actions.move(index, index - 1)}
              label={t("step.up")}
            >
              <UpIcon />
            </Item>
            <Item
              keys="Alt+↓"
              disabled={index === count - 1}
              onSelect={() => actions.move(index, index + 1)}
              label={t("step.down")}
            >
              <DownIcon />
            </Item>
            <Item keys="Alt+C" onSelect={() => actions.duplicate(index)} label={t("step.duplicate")} />
            <Item
              keys="Alt+O"
              onSelect={() => actions.mute(index)}
              label={step.muted ? t("step.put_back") : t("step.leave_out")}
            />
            <Item
              keys="Alt+Delete"
              onSelect={() => actions.remove(index)}
              label={t("step.remove", { kind: kindWithin(step.kind) })}
            >
              <RemoveIcon />
            </Item>
          </Menu>
        </>
      )}
    </span>
  );
}

interface ItemProps {
  label: string;
  keys: string;
  onSelect: () => void;
  disabled?: boolean;
  children?: ReactNode;
}

function Item({ label, keys, onSelect, disabled = false, children }: ItemProps) {
  return (
    <MenuItem onSelect={onSelect} disabled={disabled}>
      <span className="w-5">{children}</span> {label}
      <span className="ml-auto text-[15px] text-soft">{keys}</span>
    </MenuItem>
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
