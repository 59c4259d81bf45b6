import { useRef } from "react";
import type { Step } from "@/api/types";
import { alikeAtFirst } from "@/features/layout/merge";

/**
 * A name for each row of a list whose steps have none of their own: what stands before or behind what was put in or
 * taken out keeps its row, so that the cursor stays in its figure whoever changes the others.
 */
export function useRowIds(steps: readonly Step[]): string[] {
  const last = useRef<{ steps: readonly Step[]; ids: string[]; made: number }>({
    steps: [],
    ids: [],
    made: 0,
  });
  const { current } = last;
  if (current.steps !== steps) {
    if (current.steps.length !== steps.length)
      current.ids = idsAfter(current, steps, () => `step-${++current.made}`);
    current.steps = steps;
  }
  return current.ids;
}

/** The names of the rows before a change, and new ones for what it put in. */
export function idsAfter(
  { steps: before, ids }: { steps: readonly Step[]; ids: readonly string[] },
  after: readonly Step[],
  newId: () => string,
): string[] {
  const head = alikeAtFirst(before, after);
  const tail = alikeAtFirst(before.slice(head).reverse(), after.slice(head).reverse());
  const put = after.slice(head, after.length - tail).map(newId);
  return [...ids.slice(0, head), ...put, ...ids.slice(ids.length - tail)];
}
