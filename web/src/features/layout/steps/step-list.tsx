import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from "@dnd-kit/sortable";
import type { Step } from "@/api/types";
import { useFocus, usePlanned, useWork } from "@/features/layout/run-context";
import { announced } from "@/ui/announced";
import { Button } from "@/ui/button";
import { PlusIcon } from "@/ui/icons";
import { t } from "@/words/layout";
import { AddStep } from "./add-step";
import { EndRow, StartRow } from "./end-rows";
import { Findings } from "./findings";
import { useRowIds } from "./row-ids";
import { StepRow } from "./step-row";
import { useContextOf, useSame } from "./use-context-of";
import { type StepActions, useSteps } from "./use-steps";

const DRAG_BEGINS = 6;

/** The run as sentences, in the order one meets it, every number editable where it stands. */
export function StepList() {
  const { draft, mayWrite } = useWork();
  const { plan } = usePlanned();
  const { steps } = draft.document;
  const actions = useSteps();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_BEGINS } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = useRowIds(steps);

  function onDragEnd({ active, over }: DragEndEvent) {
    if (over && active.id !== over.id)
      actions.move(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
  }

  const onTheWhole = (plan?.findings ?? []).filter(
    (finding) => finding.place === "steps" || finding.place.startsWith("couplings"),
  );
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={announced(ids, (at) => t("step.called", { index: at + 1 }))}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol data-tour="steps" aria-label={t("step.list")} className="flex flex-col">
          <StartRow />
          {steps.map((step, index) => (
            <Row key={ids[index]} id={ids[index] ?? ""} step={step} index={index} actions={actions} />
          ))}
          {mayWrite && (
            <li className="border-b border-line/60 py-1.5 pl-10">
              <AddStep
                onAdd={(kind) => actions.insert(steps.length, kind)}
                onEnd={actions.toEnd}
                trigger={
                  <Button look="quiet" data-tape>
                    <PlusIcon /> {t("step.add")}
                  </Button>
                }
              />
            </li>
          )}
          {onTheWhole.length > 0 && (
            <li className="border-b border-line/60 px-3 py-2">
              <Findings findings={onTheWhole} />
            </li>
          )}
          <EndRow />
        </ol>
      </SortableContext>
    </DndContext>
  );
}

interface RowProps {
  id: string;
  step: Step;
  index: number;
  actions: StepActions;
}

/** A step's row, given what concerns it alone; what is unchanged stays the same object. */
function Row({ id, step, index, actions }: RowProps) {
  const { draft } = useWork();
  const { plan } = usePlanned();
  const { chosen, side } = useFocus();
  const context = useContextOf(index);
  const bends = useSame(plan?.bends.filter((bend) => bend.step === index).map((bend) => bend.number) ?? []);
  return (
    <StepRow
      id={id}
      step={step}
      index={index}
      count={draft.document.steps.length}
      actions={actions}
      bends={bends}
      waysOpen={side === "step" && chosen === index}
      context={context}
    />
  );
}
