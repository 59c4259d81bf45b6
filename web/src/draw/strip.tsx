import type { BenchBend, PlannedMark, PlannedPiece } from "@/api/types";
import { readingWidth } from "./fractions";
import { rows } from "./labels";

interface Props {
  piece: PlannedPiece;
  width: number;
  /** The longest length that the strip's scale must hold, so that strips compare. */
  longest: number;
  chosenBends: number[];
  onChoose: (bend: number) => void;
  /** Which mark is shown for a bend; the proposed one unless chosen otherwise. */
  markFor?: (bend: BenchBend) => PlannedMark;
}

const SIDE = 34;
const TAPE_TOP = 2;
const TAPE_HEIGHT = 29;
const PIPE_TOP = 34;
const PIPE_HEIGHT = 22;
const LABEL_TOP = 66;
const ROW = 26;
const FOOT = 12;

/** The straight pipe as it lies on the bench, under a tape, with its pencil marks; true to scale along the pipe. */
export function StickStrip({
  piece,
  width,
  longest,
  chosenBends,
  onChoose,
  markFor = (bend) => bend.use,
}: Props) {
  const scale = (width - 2 * SIDE) / longest;
  const x = (inches: number) => SIDE + inches * scale;
  const length = piece.length.inches;
  const marks = piece.bends
    .map((bend) => ({ bend, mark: markFor(bend) }))
    .sort((a, b) => a.mark.at.inches - b.mark.at.inches);
  const labels = marks.map(({ mark }) => labelSpan(x(mark.at.inches), mark.at.reads, width));
  const places = rows(labels);
  const height = LABEL_TOP + ROW * (Math.max(0, ...places) + 1);
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Piece ${piece.number}, ${piece.length.reads} long, marks at ${marks.map(({ mark }) => mark.at.reads).join(", ")}`}
    >
      <Tape x={x} length={length} scale={scale} />
      <rect
        x={x(0)}
        y={PIPE_TOP}
        width={length * scale}
        height={PIPE_HEIGHT}
        fill="var(--pipe)"
        stroke="var(--pipe-edge)"
        strokeWidth="1.5"
      />
      {piece.bends.map((bend) => (
        <rect
          key={bend.number}
          x={x(bend.arc_start)}
          y={PIPE_TOP + 1}
          width={(bend.arc_end - bend.arc_start) * scale}
          height={PIPE_HEIGHT - 2}
          fill={chosenBends.includes(bend.number) ? "var(--accent)" : "var(--bend)"}
        />
      ))}
      <rect
        x={x(0) + 1}
        y={PIPE_TOP + 6}
        width={length * scale - 2}
        height="5"
        fill="var(--pipe-light)"
        opacity="0.7"
      />
      <EndSign end="A" x={x(0) - 18} />
      <EndSign end="B" x={x(length) + 18} />
      {marks.map(({ bend, mark }, i) => (
        <PencilMark
          key={bend.number}
          x={x(mark.at.inches)}
          labelFrom={labels[i]?.from ?? 0}
          labelTo={labels[i]?.to ?? 0}
          top={LABEL_TOP + ROW * (places[i] ?? 0)}
          number={bend.number}
          reads={mark.at.reads}
          chosen={chosenBends.includes(bend.number)}
          onChoose={() => onChoose(bend.number)}
        />
      ))}
    </svg>
  );
}

/** Where a mark's label goes: beneath its mark, but never off the strip. */
function labelSpan(at: number, reads: string, width: number): { from: number; to: number } {
  const wide = readingWidth(reads, 23) + 50;
  const from = Math.min(Math.max(at - 16, 0), width - wide);
  return { from, to: from + wide };
}

interface TapeProps {
  x: (inches: number) => number;
  length: number;
  scale: number;
}

function Tape({ x, length, scale }: TapeProps) {
  const every = scale > 4 ? 1 : scale > 2 ? 3 : 6;
  const ticks = Array.from({ length: Math.floor(length / every) + 1 }, (_, i) => i * every);
  const numbered = scale > 5.5 ? 6 : FOOT;
  return (
    <g>
      <rect
        x={x(0)}
        y={TAPE_TOP}
        width={length * scale}
        height={TAPE_HEIGHT}
        fill="var(--paper)"
        stroke="var(--line)"
      />
      {ticks.map((inch) => (
        <line
          key={inch}
          x1={x(inch)}
          x2={x(inch)}
          y1={TAPE_TOP + TAPE_HEIGHT}
          y2={TAPE_TOP + TAPE_HEIGHT - (inch % FOOT === 0 ? 12 : inch % 6 === 0 ? 9 : 6)}
          stroke="var(--ink)"
          strokeWidth={inch % FOOT === 0 ? 1.8 : 1}
        />
      ))}
      {ticks
        .filter((inch) => inch > 0 && inch % numbered === 0 && x(length) - x(inch) > 16)
        .map((inch) => (
          <text
            key={inch}
            x={x(inch)}
            y={TAPE_TOP + 14}
            textAnchor="middle"
            fontSize="14"
            fontWeight={inch % FOOT ? 400 : 700}
            fill="var(--ink)"
          >
            {inch}
          </text>
        ))}
    </g>
  );
}

function EndSign({ end, x }: { end: "A" | "B"; x: number }) {
  const y = PIPE_TOP + PIPE_HEIGHT / 2;
  return (
    <g>
      {end === "A" ? (
        <rect x={x - 11} y={y - 11} width="22" height="22" fill="var(--ink)" />
      ) : (
        <circle cx={x} cy={y} r="12" fill="var(--ink)" />
      )}
      <text x={x} y={y + 5.5} textAnchor="middle" fontSize="15" fontWeight="700" fill="var(--paper)">
        {end}
      </text>
    </g>
  );
}

interface MarkProps {
  x: number;
  labelFrom: number;
  labelTo: number;
  top: number;
  number: number;
  reads: string;
  chosen: boolean;
  onChoose: () => void;
}

function PencilMark({ x, labelFrom, labelTo, top, number, reads, chosen, onChoose }: MarkProps) {
  const color = chosen ? "var(--accent)" : "var(--ink)";
  return (
    <g onPointerDown={onChoose} className="cursor-pointer">
      <line
        x1={x}
        x2={x}
        y1={TAPE_TOP + TAPE_HEIGHT}
        y2={PIPE_TOP + PIPE_HEIGHT + 3}
        stroke={color}
        strokeWidth="2.5"
      />
      <path
        d={`M${x} ${PIPE_TOP + PIPE_HEIGHT + 3}L${labelFrom + 16} ${top + 2}`}
        stroke={color}
        strokeWidth="1.2"
        fill="none"
      />
      <rect
        x={labelFrom}
        y={top}
        width={labelTo - labelFrom - 4}
        height={ROW - 3}
        rx="4"
        fill="var(--sheet)"
      />
      <rect x={labelFrom + 2} y={top + 1} width="28" height="21" rx="10.5" fill={color} />
      <text
        x={labelFrom + 16}
        y={top + 16.5}
        textAnchor="middle"
        fontSize="15"
        fontWeight="700"
        fill={chosen ? "var(--on-accent)" : "var(--paper)"}
      >
        {number}
      </text>
      <text x={labelFrom + 35} y={top + 19} fontSize="23" fontWeight="700" fill={color} className="tape">
        {reads}
      </text>
    </g>
  );
}
