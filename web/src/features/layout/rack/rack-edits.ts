import type { PipeRack, RackPipe, RunDocument } from "@/api/types";
import { sidesOf, type TradeSize } from "@/trade/words";

// What hands get between two pipes, and whole inches from centre to centre, as people measure.
const USUAL_SPACING: Partial<Record<TradeSize, string>> = { "1/2": "2", "3/4": "2", "1": "3", "1-1/4": "3" };
const WIDE_SPACING = "5";
export const MOST_BESIDE = 23;

/** A rack as it begins: so many more pipes like this run, on the first side there is. */
export function newRack(document: RunDocument, beside: number): PipeRack {
  const [side = "up"] = sidesOf(document.start.heading);
  return {
    side,
    spacing: USUAL_SPACING[document.trade_size] ?? WIDE_SPACING,
    pipes: Array.from({ length: Math.min(Math.max(beside, 1), MOST_BESIDE) }, () => ({})),
  } as PipeRack;
}

const withPipes = (rack: PipeRack, pipes: RackPipe[]): PipeRack => ({ ...rack, pipes });

export const addPipe = (rack: PipeRack): PipeRack =>
  withPipes(rack, [...rack.pipes, { ...likeTheLast(rack) }]);

/** The next one is of the size of the last, and nothing else of it. */
function likeTheLast(rack: PipeRack): RackPipe {
  const last = rack.pipes.at(-1);
  const { trade_size, material, shoe } = last ?? {};
  return {
    ...(trade_size ? { trade_size } : {}),
    ...(material ? { material } : {}),
    ...(shoe ? { shoe } : {}),
  } as RackPipe;
}

export const removePipe = (rack: PipeRack, at: number): PipeRack =>
  withPipes(rack, rack.pipes.toSpliced(at, 1));

export function movePipe(rack: PipeRack, from: number, to: number): PipeRack {
  const pipe = rack.pipes[from];
  if (!pipe || to < 0 || to >= rack.pipes.length) return rack;
  return withPipes(rack, rack.pipes.toSpliced(from, 1).toSpliced(to, 0, pipe));
}

export const setPipe = (rack: PipeRack, at: number, pipe: Partial<RackPipe>): PipeRack => {
  const before = rack.pipes[at];
  return before ? withPipes(rack, rack.pipes.with(at, { ...before, ...pipe })) : rack;
};
