import { useEffect, useMemo, useRef } from "react";
import type { Fix, Step } from "@/api/types";
import { useFocus, useWork } from "@/features/layout/run-context";
import { applyEdits } from "./apply-edits";
import { newStep } from "./new-step";

export interface StepActions {
  change: (index: number, next: Step, field: string) => void;
  insert: (index: number, kind: Step["kind"]) => void;
  move: (from: number, to: number) => void;
  duplicate: (index: number) => void;
  mute: (index: number) => void;
  remove: (index: number) => void;
  choose: (index: number) => void;
  openWays: (index: number) => void;
  mend: (fix: Fix) => void;
  /** To the end's first figure. */
  toEnd: () => void;
}

/** What can be done with the steps of the run; stays the same object. After a change of order the focus stays with the step. */
export function useSteps(): StepActions {
  const work = useWork();
  const { choose, open } = useFocus();
  const latest = useRef({ ...work, choose, open });
  latest.current = { ...work, choose, open };
  const wanted = useRef<{ step: number; empty: boolean } | null>(null);

  useEffect(() => {
    if (!wanted.current) return;
    const { step, empty } = wanted.current;
    wanted.current = null;
    onceMenusAreClosed(() => focusFirst(`[data-step="${step}"]`, empty));
  });

  return useMemo(() => {
    const document = () => latest.current.draft.document;
    const at = (index: number) => document().steps[index];
    const set = (steps: Step[], place = "") => latest.current.edit({ ...document(), steps }, place);
    const after = (steps: Step[], step: number, empty: boolean) => {
      set(steps);
      latest.current.choose(step);
      wanted.current = { step, empty };
    };
    return {
      change: (index, next, field) =>
        set(document().steps.with(index, next), field && `steps.${index}.${field}`),
      insert: (index, kind) =>
        after(document().steps.toSpliced(index, 0, newStep(kind, document(), index)), index, true),
      move: (from, to) => {
        const step = at(from);
        if (!step || to < 0 || to >= document().steps.length) return;
        after(document().steps.toSpliced(from, 1).toSpliced(to, 0, step), to, false);
      },
      duplicate: (index) => {
        const step = at(index);
        if (step) after(document().steps.toSpliced(index + 1, 0, structuredClone(step)), index + 1, false);
      },
      mute: (index) => {
        const step = at(index);
        if (step) after(document().steps.with(index, { ...step, muted: !step.muted }), index, false);
      },
      remove: (index) => after(document().steps.toSpliced(index, 1), Math.max(0, index - 1), false),
      choose: (index) => latest.current.choose(index),
      openWays: (index) => {
        latest.current.choose(index);
        latest.current.open("step");
      },
      toEnd: () => onceMenusAreClosed(() => focusFirst("[data-end]", true)),
      mend: (fix) => latest.current.edit(applyEdits(document(), fix.edits), ""),
    };
  }, []);
}

/** An open menu keeps the focus to itself. */
function onceMenusAreClosed(act: () => void, tries = 30) {
  if (tries && document.querySelector("[role=menu]"))
    requestAnimationFrame(() => onceMenusAreClosed(act, tries - 1));
  else act();
}

/** To the first number of a row, or to the first that is still empty. */
function focusFirst(row: string, empty: boolean) {
  const fields = [...document.querySelectorAll<HTMLInputElement>(`${row} input[data-tape]:not(:disabled)`)];
  const field = (empty && fields.find((one) => !one.value)) || fields[0];
  field?.focus();
  field?.scrollIntoView({ block: "nearest" });
}
