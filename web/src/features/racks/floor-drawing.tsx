import type { FloorPipe, FloorStick } from "@/api/types";
import { t } from "@/words/racks";

interface Props {
  stick: FloorStick;
  width: number;
}

const NAMES = 150;
const RIGHT = 26;
const ROW = 60;
const TOP = 26;
const BAR = 16;
const NEAR = 56;

/** The sticks to scale along their length, end A at the left, each mark with what the tape reads there. */
export function FloorDrawing({ stick, width }: Props) {
  const longest = Math.max(...stick.pipes.map((pipe) => pipe.ahead.inches + pipe.length.inches));
  const scale = (width - NAMES - RIGHT) / longest;
  const height = TOP + stick.pipes.length * ROW + 10;
  const x = (inches: number) => NAMES + inches * scale;
  const y = (row: number) => TOP + row * ROW + ROW / 2;
  const kicks = stick.pipes.flatMap((pipe, row) =>
    pipe.marks
      .filter((mark) => mark.lifts)
      .map((mark) => `${x(pipe.ahead.inches + mark.at.inches)},${y(row)}`),
  );
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={t("drawing.label", { pipes: stick.pipes.length })}
      className="print:h-auto print:max-w-full"
    >
      {stick.line && (
        <g>
          <line
            x1={x(stick.line.at)}
            x2={x(stick.line.at)}
            y1={TOP - 6}
            y2={height}
            stroke="var(--accent)"
            strokeWidth="2.5"
            strokeDasharray="10 5"
          />
          <text
            x={x(stick.line.at)}
            y={16}
            textAnchor="middle"
            fontSize="15"
            fontWeight="600"
            fill="var(--accent)"
          >
            {t("drawing.line")}
          </text>
        </g>
      )}
      {kicks.length > 1 && (
        <polyline
          points={kicks.join(" ")}
          fill="none"
          stroke="var(--soft)"
          strokeDasharray="4 4"
          strokeWidth="1.5"
        />
      )}
      {stick.pipes.map((pipe, row) => (
        <PipeRow key={pipe.number} pipe={pipe} x={x} y={y(row)} />
      ))}
    </svg>
  );
}

function PipeRow({ pipe, x, y }: { pipe: FloorPipe; x: (inches: number) => number; y: number }) {
  const start = x(pipe.ahead.inches);
  const end = x(pipe.ahead.inches + pipe.length.inches);
  const sides = sidesOf(pipe.marks.map((mark) => x(pipe.ahead.inches + mark.at.inches)));
  return (
    <g>
      <circle cx={16} cy={y} r={13} fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
      <text x={16} y={y + 5} textAnchor="middle" fontSize="15" fontWeight="700" fill="var(--ink)">
        {pipe.number}
      </text>
      <text x={36} y={y - 1} fontSize="14" fontWeight="600" fill="var(--ink)">
        {shortened(pipe.name)}
      </text>
      <text x={36} y={y + 15} fontSize="13" fill="var(--soft)" className="tape">
        {pipe.trade_size}, {pipe.length.reads}
        {!pipe.is_foremost && t("drawing.ahead", { ahead: pipe.ahead.reads })}
      </text>
      <rect
        x={start}
        y={y - BAR / 2}
        width={end - start}
        height={BAR}
        rx="2"
        fill="var(--pipe)"
        stroke="var(--pipe-edge)"
        strokeWidth="1.5"
      />
      {pipe.marks.map((mark, at) => {
        const place = x(pipe.ahead.inches + mark.at.inches);
        const above = sides[at];
        return (
          <g key={mark.bend}>
            <line
              x1={place}
              x2={place}
              y1={y - BAR / 2 - (above ? 4 : 0)}
              y2={y + BAR / 2 + (above ? 0 : 4)}
              stroke="var(--ink)"
              strokeWidth="2.5"
            />
            <text
              x={place}
              y={above ? y - BAR / 2 - 7 : y + BAR / 2 + 17}
              textAnchor="middle"
              fontSize="15"
              fontWeight="600"
              fill="var(--ink)"
              stroke="var(--paper)"
              strokeWidth="4"
              paintOrder="stroke"
              className="tape"
            >
              {mark.at.reads}
              {mark.lifts && t("drawing.kick", { lifts: mark.lifts.reads })}
            </text>
          </g>
        );
      })}
    </g>
  );
}

const MOST_LETTERS = 15;

const LAST_LETTERS = 7;

/** A long name with its end, which is what tells the pipes of a rack apart. */
const shortened = (name: string): string =>
  name.length > MOST_LETTERS
    ? `${name.slice(0, MOST_LETTERS - 1 - LAST_LETTERS)}…${name.slice(-LAST_LETTERS)}`
    : name;

/** For each mark whether its reading stands above the pipe; of two that are near each other one goes below. */
function sidesOf(places: number[]): boolean[] {
  const sides: boolean[] = [];
  for (const [at, place] of places.entries()) {
    const before = places[at - 1];
    sides.push(before === undefined || place - before > 2 * NEAR ? true : !sides[at - 1]);
  }
  return sides;
}
