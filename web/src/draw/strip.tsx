import { memo } from "react";
import type { Measure, PlannedMark } from "@/api/types";
import { t } from "@/words/ui";
import { CouplingGrip, type CouplingHold } from "./coupling-grip";
import { EndSign } from "./end-sign";
import { readingWidth } from "./fractions";
import { inOneRow, rows } from "./labels";
import { NumberTab } from "./number-tab";
import { referenceName } from "./references";
import { marksAlong, type Ruler, rulerOf } from "./ruler";
import { useDrag } from "./use-drag";

export interface StripBend {
  number: number;
  arc_start: number;
  arc_end: number;
  use: PlannedMark;
}

interface Props {
  piece: { number: number; length: Measure; bends: StripBend[] };
  width: number;
  /** The longest length that the strip's scale must hold, so that strips compare. */
  longest: number;
  chosenBends: number[];
  onChoose: (bend: number) => void;
  /** Which mark is shown for a bend; the proposed one unless chosen otherwise. */
  markFor?: ((bend: StripBend) => PlannedMark) | undefined;
  /** Where the pencil marks may be dragged, in inches from end A. */
  onDragMark?: ((bend: number, at: number) => void) | undefined;
  /** The coupling at end B, where it may be moved. */
  coupling?: CouplingHold | undefined;
}

const SIDE = 34;
const TAPE_TOP = 2;
const TAPE_HEIGHT = 29;
const PIPE_TOP = 34;
const PIPE_HEIGHT = 22;
const LABEL_TOP = 72;
const ROW = 26;
const LETTER = 8.6;
const PILL = 16;

/** The straight pipe as it lies on the bench, under a tape, with its pencil marks; true to scale along the pipe. */
export const StickStrip = memo(function StickStrip({
  piece,
  width,
  longest,
  chosenBends,
  onChoose,
  markFor = (bend) => bend.use,
  onDragMark,
  coupling,
}: Props) {
  const scale = (width - 2 * SIDE) / longest;
  const x = (inches: number) => SIDE + inches * scale;
  const length = piece.length.inches;
  const marks = piece.bends
    .map((bend) => ({ bend, mark: markFor(bend) }))
    .sort((a, b) => a.mark.at.inches - b.mark.at.inches);
  const { labels, places } = layLabels(
    marks.map(({ mark }) => ({ at: x(mark.at.inches), wide: labelWidth(mark.at.reads, mark.reference) })),
    width,
  );
  const height = LABEL_TOP + ROW * (Math.max(0, ...places) + 1);
  return (
    <div className="relative">
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={t("stick.label", {
          piece: piece.number,
          length: piece.length.reads,
          marks: marks.map(({ mark }) => mark.at.reads).join(", "),
        })}
        aria-description={marks
          .map(({ bend, mark }) =>
            t("stick.bend", {
              bend: bend.number,
              reference: referenceName(mark.reference),
              hook: mark.hook,
            }),
          )
          .join("; ")}
      >
        <Tape x={x} length={length} scale={scale} isMetric={piece.length.reads.endsWith("mm")} />
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
        <EndSign end="A" x={x(0) - 18} y={PIPE_TOP + PIPE_HEIGHT / 2} />
        {!coupling && <EndSign end="B" x={x(length) + 18} y={PIPE_TOP + PIPE_HEIGHT / 2} />}
        {marks.map(({ bend, mark }, i) => (
          <path
            key={bend.number}
            d={`M${x(mark.at.inches)} ${PIPE_TOP + PIPE_HEIGHT + 3}L${(labels[i]?.from ?? 0) + PILL} ${LABEL_TOP + ROW * (places[i] ?? 0) + 2}`}
            stroke={chosenBends.includes(bend.number) ? "var(--accent)" : "var(--ink)"}
            strokeWidth="1.2"
          />
        ))}
        {marks.map(({ bend, mark }, i) => (
          <PencilMark
            key={bend.number}
            x={x(mark.at.inches)}
            labelFrom={labels[i]?.from ?? 0}
            labelTo={labels[i]?.to ?? 0}
            top={LABEL_TOP + ROW * (places[i] ?? 0)}
            scale={scale}
            at={mark.at.inches}
            number={bend.number}
            reads={mark.at.reads}
            reference={`${shownReference(mark.reference)}${mark.hook === "A" ? "◂" : "▸"}`}
            chosen={chosenBends.includes(bend.number)}
            onChoose={() => onChoose(bend.number)}
            onDrag={onDragMark && ((at) => onDragMark(bend.number, at))}
          />
        ))}
      </svg>
      {coupling && (
        <svg
          width={width}
          height={PIPE_TOP + PIPE_HEIGHT + 8}
          className="pointer-events-none absolute top-0 left-0"
        >
          <title>{t("stick.coupling", { number: coupling.number })}</title>
          <CouplingGrip hold={coupling} x={x} scale={scale} top={PIPE_TOP} height={PIPE_HEIGHT} />
        </svg>
      )}
    </div>
  );
});

interface Label {
  from: number;
  to: number;
}

const labelWidth = (reads: string, reference: string): number =>
  readingWidth(reads, 23) + 42 + (shownReference(reference).length + 2) * LETTER;

/** The arrow is what is mostly set on its mark; only other references are named. */
const shownReference = (reference: string): string =>
  reference === "arrow" ? "" : `${referenceName(reference)} `;

const MOST_ROWS = 4;

/** Where the marks' labels go: in as few rows as hold them all, each row as near its marks as it can be. */
function layLabels(
  marks: { at: number; wide: number }[],
  width: number,
): { labels: Label[]; places: number[] } {
  for (let count = 1; count <= MOST_ROWS; count += 1) {
    const laid = inRows(marks, count, width);
    if (laid) return laid;
  }
  const labels = marks.map(({ at, wide }) => {
    const from = Math.min(Math.max(at - PILL, 0), width - wide);
    return { from, to: from + wide };
  });
  return { labels, places: rows(labels) };
}

/** The labels in turn over so many rows, or null where one of the rows is too full. */
function inRows(marks: { at: number; wide: number }[], count: number, width: number) {
  const labels: Label[] = [];
  for (let row = 0; row < count; row += 1) {
    const own = marks.flatMap((mark, i) => (i % count === row ? [{ ...mark, i }] : []));
    const laid = inOneRow(
      own.map(({ at }) => at - PILL),
      own.map(({ wide }) => wide),
      width,
    );
    if (!laid) return null;
    own.forEach(({ i, wide }, k) => {
      const from = laid[k] ?? 0;
      labels[i] = { from, to: from + wide };
    });
  }
  return { labels, places: marks.map((_, i) => i % count) };
}

interface TapeProps {
  x: (inches: number) => number;
  length: number;
  scale: number;
  isMetric: boolean;
}

function Tape({ x, length, scale, isMetric }: TapeProps) {
  const ruler = rulerOf(scale, isMetric);
  const { unit, numbered, longest } = ruler;
  const ticks = marksAlong(ruler, length);
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
      <path d={tickMarks(ticks, ruler, false, x)} stroke="var(--ink)" strokeWidth="1" />
      <path d={tickMarks(ticks, ruler, true, x)} stroke="var(--ink)" strokeWidth="1.8" />
      {ticks
        .filter((tick) => tick > 0 && tick % numbered === 0 && x(length) - x(tick * unit) > 16)
        .map((tick) => (
          <text
            key={tick}
            x={x(tick * unit)}
            y={TAPE_TOP + 14}
            textAnchor="middle"
            fontSize="14"
            fontWeight={tick % longest ? 400 : 700}
            fill="var(--ink)"
          >
            {tick}
          </text>
        ))}
    </g>
  );
}

/** The tape's marks as one path, the longest of them or the others. */
function tickMarks(
  ticks: number[],
  { unit, long, longest }: Ruler,
  isLongest: boolean,
  x: (inches: number) => number,
): string {
  const bottom = TAPE_TOP + TAPE_HEIGHT;
  return ticks
    .filter((tick) => (tick % longest === 0) === isLongest)
    .map((tick) => `M${x(tick * unit).toFixed(2)} ${bottom}v${isLongest ? -12 : tick % long === 0 ? -9 : -6}`)
    .join("");
}

interface MarkProps {
  x: number;
  labelFrom: number;
  labelTo: number;
  top: number;
  scale: number;
  at: number;
  number: number;
  reads: string;
  reference: string;
  chosen: boolean;
  onChoose: () => void;
  onDrag: ((at: number) => void) | undefined;
}

function PencilMark(props: MarkProps) {
  const { x, labelFrom, labelTo, top, scale, at, number, reads, reference, chosen, onChoose, onDrag } = props;
  const color = chosen ? "var(--accent)" : "var(--ink)";
  const drag = useDrag(scale, at, (next) => onDrag?.(next));
  return (
    <g
      onPointerDownCapture={onChoose}
      {...(onDrag ? drag : {})}
      className={onDrag ? "cursor-ew-resize touch-none" : "cursor-pointer"}
    >
      <line
        x1={x}
        x2={x}
        y1={TAPE_TOP + TAPE_HEIGHT}
        y2={PIPE_TOP + PIPE_HEIGHT + 3}
        stroke={color}
        strokeWidth="2.5"
      />
      <rect
        x={labelFrom}
        y={top}
        width={labelTo - labelFrom - 4}
        height={ROW - 3}
        rx="4"
        fill="var(--sheet)"
      />
      <NumberTab number={number} x={labelFrom + PILL} y={top + 11} chosen={chosen} />
      <text x={labelFrom + 35} y={top + 19} fontSize="23" fontWeight="700" fill={color} className="tape">
        {reads}
        <tspan fontSize="15" fontWeight="500" dx="7">
          {reference}
        </tspan>
      </text>
    </g>
  );
}
