import type { InTheShoe, Point, SheetBend, ShoeUsed } from "@/api/types";
import { t } from "@/words/ui";
import { DegreeLines } from "./degree-lines";

interface Props {
  drawn: InTheShoe;
  shoe: ShoeUsed;
  hook: "A" | "B";
  where: SheetBend["where"];
  /** Degrees of the bend. */
  angle: number;
  /** What the dial is to show for it. */
  dial?: string;
  at: "start" | "end";
  width: number;
  tall: number;
}

const HANDLE = 38;
const EDGE = 18;
const LEAST_PIPE = 4;
const CHORDS = 14;
/** From these radii of its head on, in pixels, the degree lines can be seen, and their names read. */
const SEEN = 24;
const NAMED = 70;

const wayOf = (where: Props["where"]) =>
  ({ floor: t("shoe.floor"), edge: t("shoe.edge"), air: t("shoe.air"), machine: t("shoe.machine") })[where];

type Spot = [number, number];

/** Depth is drawn aslant at a third, so that legs toward the eye are seen; what lies in the bend's plane is true. */
const flat = ([x, y, z]: Point): Spot => [x - z * 0.3, y - z * 0.22];

/** Shoe and pipe from the side as the bend begins or ends, true to scale, the other state ghosted behind it. */
export function InTheShoeDrawing({ drawn, shoe, hook, where, angle, dial, at, width, tall }: Props) {
  const pipes = { start: drawn.start.map(flat), end: drawn.end.map(flat) };
  const heel = hook === "A" ? 1 : -1;
  const up = where === "air" ? -1 : 1;
  const centres = { start: [0, up * shoe.radius] as Spot, end: [drawn.rolls, up * shoe.radius] as Spot };
  const handles = (["start", "end"] as const).map((when, i) =>
    handleOf(centres[when], drawn.handle?.[i], heel, where, drawn.floor),
  );
  const spots = [...pipes.start, ...pipes.end, ...handles.flat(), [0, drawn.floor] as Spot];
  const [left, right] = bounds(spots.map(([x]) => x));
  const [low, high] = bounds(spots.map(([, y]) => y));
  const scale = Math.min((width - 2 * EDGE) / (right - left), (tall - 2 * EDGE) / (high - low));
  const inset = (width - (right - left) * scale) / 2;
  const place = ([x, y]: Spot): Spot => [inset + (x - left) * scale, EDGE + (high - y) * scale];
  const height = Math.ceil((high - low) * scale + 2 * EDGE);
  const other = at === "start" ? "end" : "start";
  const thick = Math.max(LEAST_PIPE, shoe.diameter * scale);
  const pipe = pipes[at].map(place);
  const ends: [Spot | undefined, Spot | undefined] = [pipe[0], pipe.at(-1)];
  const turned = at === "end" ? (angle * Math.PI) / 180 : 0;
  const onFloor = where === "air" ? 0 : turned;
  const head = headOf(centres[at], shoe.radius, heel, up, onFloor).map(place);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      role="img"
      aria-label={t(at === "start" ? "in_shoe.start" : "in_shoe.end", {
        where: wayOf(where),
      })}
    >
      <path d={ground(place, drawn, width, height)} fill="none" stroke="var(--soft)" strokeWidth="2" />
      <path
        d={path(pipes[other].map(place))}
        className="fill-none stroke-line"
        strokeWidth={thick}
        strokeDasharray="3 4"
      />
      <path
        d={path((handles[at === "start" ? 0 : 1] ?? []).map(place))}
        className="stroke-ink"
        strokeWidth="5"
        strokeLinecap="round"
      />
      <path
        d={path(pipe)}
        fill="none"
        stroke="var(--pipe-edge)"
        strokeWidth={thick + 2.5}
        strokeLinejoin="round"
      />
      <path d={path(pipe)} fill="none" stroke="var(--pipe)" strokeWidth={thick} strokeLinejoin="round" />
      <path d={`${path(head)}Z`} fill="var(--ink)" opacity="0.85" />
      {shoe.radius * scale > SEEN && (
        <DegreeLines
          shoe={shoe}
          at={(angle, out) => place(onHead(centres[at], shoe.radius * out, heel, up, angle - onFloor))}
          dial={dial}
          named={shoe.radius * scale > NAMED}
          onDark
        />
      )}
      {ends.map((spot, i) => spot && <End key={i ? "B" : "A"} end={i ? "B" : "A"} at={spot} width={width} />)}
    </svg>
  );
}

/** What the pipe lies on, or the ground; over an edge it ends there, and goes down. */
function ground(place: (spot: Spot) => Spot, drawn: InTheShoe, width: number, height: number): string {
  const [edge, floor] = place([drawn.edge ?? 0, drawn.floor]);
  if (drawn.edge === null) return `M0 ${floor}H${width}`;
  return `M${drawn.edge > 0 ? 0 : width} ${floor}H${edge}V${height}`;
}

function End({ end, at: [x, y], width }: { end: "A" | "B"; at: Spot; width: number }) {
  const middle = Math.min(Math.max(x, 11), width - 11);
  return (
    <g transform={`translate(${middle} ${y})`}>
      {end === "A" ? (
        <rect x="-9" y="-9" width="18" height="18" fill="var(--ink)" />
      ) : (
        <circle r="10" fill="var(--ink)" />
      )}
      <text y="5" textAnchor="middle" fontSize="14" fontWeight="700" fill="var(--paper)">
        {end}
      </text>
    </g>
  );
}

/** The handle from the shoe's head: leaning as it is pulled, or down to the floor in the air. */
function handleOf(
  centre: Spot,
  lean: number | undefined,
  heel: number,
  where: Props["where"],
  floor: number,
): Spot[] {
  if (lean === undefined) return [];
  if (where === "air") return [centre, [centre[0], floor]];
  const angle = (lean * Math.PI) / 180;
  return [centre, [centre[0] + heel * Math.sin(angle) * HANDLE, centre[1] + Math.cos(angle) * HANDLE]];
}

/** The shoe's head: the groove's arc from the tangent on, and back to its middle. */
function headOf([x, y]: Spot, radius: number, heel: number, up: number, turned: number): Spot[] {
  const rim = Array.from({ length: CHORDS + 1 }, (_, i) =>
    onHead([x, y], radius, heel, up, -0.25 + (i / CHORDS) * 1.9 - turned),
  );
  return [...rim, onHead([x, y], radius * 0.2, heel, up, 0.7 - turned)];
}

/** A place so far from the head's middle, an angle from straight below it toward the heel. */
const onHead = ([x, y]: Spot, out: number, heel: number, up: number, angle: number): Spot => [
  x + heel * out * Math.sin(angle),
  y - up * out * Math.cos(angle),
];

const path = (spots: Spot[]): string =>
  spots.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join("");

const bounds = (values: number[]): Spot => [Math.min(...values), Math.max(...values)];
