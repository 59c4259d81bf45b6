import type { BenchBend, Plan, PlannedAct, PlannedMark, PlannedOrder, PlannedPiece } from "@/api/types";

/** One bend in its turn: on its piece, and as the order of bending wants it (without one, along the pipe). */
export interface BenchStep {
  piece: PlannedPiece;
  bend: BenchBend;
  act: PlannedAct | null;
  use: PlannedMark;
}

/** All bends of a plan in the order of bending; a piece without an order keeps its bends along the pipe. */
export function benchSteps(plan: Plan, orders: PlannedOrder[] | undefined): BenchStep[] {
  return plan.pieces.flatMap((piece, at) => inOrder(piece, orders?.[at]));
}

function inOrder(piece: PlannedPiece, order: PlannedOrder | undefined): BenchStep[] {
  const along = piece.bends.map((bend): BenchStep => ({ piece, bend, act: null, use: bend.use }));
  const ordered = (order?.acts ?? []).flatMap((act) =>
    act.bends.flatMap((number, i): BenchStep[] => {
      const bend = piece.bends.find((one) => one.number === number);
      return bend ? [{ piece, bend, act, use: act.uses[i] ?? bend.use }] : [];
    }),
  );
  return ordered.length === along.length ? ordered : along;
}
