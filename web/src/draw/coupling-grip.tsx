import type { KeyboardEvent } from "react";
import type { Tape } from "@/api/types";
import { t } from "@/words/ui";
import { divisionOf, farOf } from "./fractions";
import { useDrag } from "./use-drag";

export interface CouplingHold {
  number: number;
  /** Along the piece, inches. */
  at: number;
  /** Where keys move it from: where it was put last, though the plan may not know yet. */
  from: number;
  room: [number, number][];
  pinned: boolean;
  reads: string;
  tape: Tape;
  onMove: (at: number) => void;
  onLetGo: () => void;
}

interface Props {
  hold: CouplingHold;
  x: (inches: number) => number;
  scale: number;
  top: number;
  height: number;
}

const WIDTH = 26;

/** The nearest place in the room there is, on the tape. */
export function within(at: number, room: [number, number][], tape: Tape): number {
  const division = divisionOf(tape);
  const onTape = Math.round(at / division) * division;
  const fits = room.map(([low, high]) =>
    Math.min(Math.max(onTape, Math.ceil(low / division) * division), Math.floor(high / division) * division),
  );
  return fits.reduce(
    (best, fit) => (Math.abs(fit - at) < Math.abs(best - at) ? fit : best),
    fits[0] ?? onTape,
  );
}

/** The coupling at a piece's end: drawn over the pipe, dragged or nudged within the room that it has. */
export function CouplingGrip({ hold, x, scale, top, height }: Props) {
  const move = (at: number) => hold.onMove(within(at, hold.room, hold.tape));
  const drag = useDrag(scale, hold.at, move);

  function onKeyDown(event: KeyboardEvent) {
    const step = event.shiftKey ? farOf(hold.tape) : divisionOf(hold.tape);
    const by = { ArrowLeft: -step, ArrowDown: -step, ArrowRight: step, ArrowUp: step }[event.key];
    if (event.key === "Delete" && hold.pinned) hold.onLetGo();
    else if (by) move(hold.from + by);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  const [low, high] = [hold.room[0]?.[0] ?? hold.at, hold.room.at(-1)?.[1] ?? hold.at];
  return (
    <g>
      {hold.room.map(([from, to]) => (
        <rect
          key={from}
          x={x(from)}
          y={top + height + 2}
          width={Math.max(2, (to - from) * scale)}
          height="4"
          rx="2"
          fill="var(--accent)"
          opacity="0.55"
        />
      ))}
      <g
        role="slider"
        tabIndex={0}
        aria-label={t("stick.coupling", { number: hold.number })}
        aria-valuemin={low}
        aria-valuemax={high}
        aria-valuenow={hold.at}
        aria-valuetext={t(hold.pinned ? "stick.held" : "stick.hold", { hold: hold.reads })}
        onKeyDown={onKeyDown}
        {...drag}
        className="pointer-events-auto cursor-ew-resize touch-none"
      >
        <rect
          x={x(hold.at) - WIDTH / 2}
          y={top - 5}
          width={WIDTH}
          height={height + 10}
          rx="3"
          fill="var(--pipe-light)"
          stroke={hold.pinned ? "var(--accent)" : "var(--ink)"}
          strokeWidth={hold.pinned ? 3 : 2}
        />
        <path
          d={`M${x(hold.at) - 5} ${top + height / 2}l-4 0m2 -3l-3 3l3 3M${x(hold.at) + 5} ${top + height / 2}l4 0m-2 -3l3 3l-3 3`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      </g>
    </g>
  );
}
