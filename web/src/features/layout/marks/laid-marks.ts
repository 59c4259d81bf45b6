import type { BenchBend, GivenMark, Plan } from "@/api/types";
import type { LaidMarks } from "@/features/layout/run-context";

export const bendsOf = (plan: Plan): BenchBend[] => plan.pieces.flatMap((piece) => piece.bends);

/** The planned marks, as somebody would lay them. */
export const asPlanned = (plan: Plan): LaidMarks =>
  Object.fromEntries(
    bendsOf(plan).map(({ number, use, angle_reads }) => [
      number,
      { at: use.at.reads, reference: use.reference, hook: use.hook, angle: angle_reads, turned: 0 },
    ]),
  );

/** One mark for each bend, in the order of the bends; the planned one where none was laid. */
export function given(plan: Plan, laid: LaidMarks): GivenMark[] {
  const marks = { ...asPlanned(plan), ...laid };
  return bendsOf(plan).flatMap(({ number }) => marks[number] ?? []);
}
