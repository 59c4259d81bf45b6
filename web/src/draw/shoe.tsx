import type { PlannedMark, ShoeUsed } from "@/api/types";
import { t } from "@/words/ui";
import { DegreeLines } from "./degree-lines";
import { referenceName } from "./references";

interface Props {
  shoe: ShoeUsed;
  /** The mark that it is set on; without one all references are shown alike. */
  mark?: PlannedMark;
  angle: number;
  /** What the dial is to show for it. */
  dial?: string;
  width: number;
}

const VIEW_WIDTH = 420;
const VIEW_HEIGHT = 256;
const PIPE_Y = 186;
const ARROW_X = 128;
const GROOVE = 110;
/** From this radius on the degree lines can be named. */
const NAMED = 60;
/** So high may the groove's radius be, for its end to stay in view. */
const TALLEST = 120;
const NAMES = ["arrow", "star", "notch"] as const;

/**
 * The shoe on the pipe at the start of the bend, to scale along the pipe: hook at the left, the groove
 * rising toward the heel. It is drawn for a hook that faces A and mirrored for one that faces B.
 */
export function ShoeDrawing({ shoe, mark, angle, dial, width }: Props) {
  const scale = Math.min(22, TALLEST / shoe.radius);
  const thick = shoe.diameter * scale;
  const mirrored = mark?.hook === "B";
  const at = (distance: number) => onGroove(shoe, scale, distance);
  const pencil = shoe.references[mark?.reference ?? "arrow"] ?? 0;
  const others = Object.entries(shoe.references).filter(([name]) => !NAMES.some((known) => known === name));
  return (
    <svg
      viewBox={`0 0 ${VIEW_WIDTH} ${VIEW_HEIGHT}`}
      width={width}
      className="h-auto max-w-full"
      role="img"
      aria-label={
        mark
          ? t("shoe.label", { reference: referenceName(mark.reference), hook: mark.hook })
          : t("shoe.references", {
              references: Object.keys(shoe.references).map(referenceName).join(", "),
            })
      }
    >
      <g transform={mirrored ? `translate(${VIEW_WIDTH} 0) scale(-1 1)` : undefined}>
        <rect
          x="4"
          y={PIPE_Y - thick / 2}
          width={VIEW_WIDTH - 8}
          height={thick}
          fill="var(--pipe)"
          stroke="var(--pipe-edge)"
          strokeWidth="1.5"
        />
        <rect
          x="5"
          y={PIPE_Y - thick / 4}
          width={VIEW_WIDTH - 10}
          height={thick / 5}
          fill="var(--pipe-light)"
          opacity="0.7"
        />
        <path
          d={groovePath(shoe, scale)}
          fill="none"
          stroke="var(--soft)"
          strokeWidth={thick + 12}
          strokeLinecap="butt"
          opacity="0.32"
        />
        <path
          d={groovePath(shoe, scale)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="2"
          strokeDasharray="2 5"
        />
        <Hook thick={thick} />
        <path
          d={arcTo(shoe, scale, (angle * Math.PI) / 180)}
          fill="none"
          stroke="var(--accent)"
          strokeWidth="5"
          opacity="0.85"
        />
        {mark && <PipeMark x={unrolled(scale, pencil)} thick={thick} />}
      </g>
      <DegreeLines
        shoe={shoe}
        at={(turned, out) => flip(inGroove(shoe, scale, turned, out), mirrored)}
        dial={dial}
        named={shoe.radius * scale > NAMED}
      />
      {NAMES.map((reference) => (
        <ReferenceSign
          key={reference}
          name={reference}
          at={flip(at(shoe.references[reference] ?? 0), mirrored)}
          used={reference === mark?.reference}
          lift={thick / 2 + 9}
          mirrored={mirrored}
        />
      ))}
      {others.map(([name, distance], at) => (
        <OtherReference
          key={name}
          name={name}
          x={flip([unrolled(scale, distance), 0], mirrored)[0]}
          top={PIPE_Y - thick / 2 - 66 - 18 * at}
          thick={thick}
          used={name === mark?.reference}
        />
      ))}
      {mark && (
        <text
          x={flip([unrolled(scale, pencil), 0], mirrored)[0]}
          y={PIPE_Y + thick / 2 + 28}
          textAnchor="middle"
          fontSize="19"
          fontWeight="700"
          fill="var(--ink)"
          className="tape"
        >
          {t("shoe.mark", { mark: mark.at.reads })}
        </text>
      )}
      <EndSigns />
    </svg>
  );
}

const unrolled = (scale: number, distance: number): number => ARROW_X + distance * scale;

const flip = ([x, y]: [number, number], mirrored: boolean): [number, number] => [
  mirrored ? VIEW_WIDTH - x : x,
  y,
];

/** Where a distance from the arrow lies along the groove: straight up to the tangent, then up the arc. */
function onGroove(shoe: ShoeUsed, scale: number, distance: number): [number, number] {
  const past = (distance - shoe.arc_offset) / shoe.radius;
  if (past <= 0) return [unrolled(scale, distance), PIPE_Y];
  const x = unrolled(scale, shoe.arc_offset) + shoe.radius * scale * Math.sin(past);
  return [x, PIPE_Y - shoe.radius * scale * (1 - Math.cos(past))];
}

/** A place that far round the groove's arc, and out from its centre. */
function inGroove(shoe: ShoeUsed, scale: number, turned: number, out: number): [number, number] {
  const radius = shoe.radius * scale;
  const x = unrolled(scale, shoe.arc_offset) + radius * out * Math.sin(turned);
  return [x, PIPE_Y - radius * (1 - out * Math.cos(turned))];
}

const path = (points: [number, number][]): string =>
  points.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join("");

function arcTo(shoe: ShoeUsed, scale: number, angle: number): string {
  const steps = Array.from({ length: 31 }, (_, i) => (i / 30) * angle * shoe.radius + shoe.arc_offset);
  return path(steps.map((distance) => onGroove(shoe, scale, distance)));
}

function groovePath(shoe: ShoeUsed, scale: number): string {
  const rise = arcTo(shoe, scale, (GROOVE * Math.PI) / 180);
  return `M${ARROW_X - 26} ${PIPE_Y}L${rise.slice(1)}`;
}

/** The hook that holds the pipe from below, ahead of the arrow. */
function Hook({ thick }: { thick: number }) {
  const y = PIPE_Y + thick / 2 + 4;
  return (
    <path
      d={`M${ARROW_X - 26} ${PIPE_Y - thick / 2 - 6}H${ARROW_X - 52}V${y + 6}H${ARROW_X - 30}`}
      fill="none"
      stroke="var(--ink)"
      strokeWidth="9"
      strokeLinejoin="round"
    />
  );
}

interface OtherProps {
  name: string;
  x: number;
  top: number;
  thick: number;
  used: boolean;
}

/** The front edge, or a reference that its owner has marked. */
function OtherReference({ name, x, top, thick, used }: OtherProps) {
  const color = used ? "var(--accent)" : "var(--soft)";
  return (
    <g stroke={color} fill={color}>
      <line x1={x} x2={x} y1={top} y2={PIPE_Y - thick / 2} strokeWidth={used ? 3.5 : 2} />
      <text
        x={x}
        y={top - 6}
        textAnchor="middle"
        fontSize={used ? 20 : 19}
        fontWeight={used ? 700 : 500}
        stroke="none"
      >
        {referenceName(name)}
      </text>
    </g>
  );
}

function PipeMark({ x, thick }: { x: number; thick: number }) {
  return (
    <line
      x1={x}
      x2={x}
      y1={PIPE_Y - thick / 2 - 3}
      y2={PIPE_Y + thick / 2 + 8}
      stroke="var(--ink)"
      strokeWidth="3"
    />
  );
}

const SIGNS = {
  arrow: "M-8 -14H8L0 0Z",
  star: "M0 -13L3.5 -4L13 -4L5.5 2L8 12L0 6L-8 12L-5.5 2L-13 -4L-3.5 -4Z",
  notch: "M-9 -8H-4L0 1L4 -8H9V4H-9Z",
};

interface SignProps {
  name: keyof typeof SIGNS;
  at: [number, number];
  used: boolean;
  lift: number;
  mirrored: boolean;
}

/** The arrow stands above the pipe; the star outside the groove; the notch inside it. */
function ReferenceSign({ name, at, used, lift, mirrored }: SignProps) {
  const side = mirrored ? -1 : 1;
  const shift: Record<typeof name, [number, number]> = {
    arrow: [0, -lift],
    star: [side * (lift + 10), lift * 0.5],
    notch: [-side * lift * 0.6, -lift - 8],
  };
  const [x, y] = [at[0] + shift[name][0], at[1] + shift[name][1]];
  const words: Record<typeof name, [number, number, "start" | "middle" | "end"]> = {
    arrow: [x - side * 14, y - 2, mirrored ? "start" : "end"],
    star: [x + side * 18, y + 6, mirrored ? "end" : "start"],
    notch: [x, y - 14, "middle"],
  };
  const [wordX, wordY, anchor] = words[name];
  return (
    <g fill={used ? "var(--accent)" : "var(--soft)"}>
      <path d={SIGNS[name]} transform={`translate(${x} ${y}) scale(${used ? 1.2 : 0.95})`} />
      <text x={wordX} y={wordY} textAnchor={anchor} fontSize={used ? 20 : 19} fontWeight={used ? 700 : 500}>
        {referenceName(name)}
      </text>
    </g>
  );
}

/** End A is always at the left: it is the pipe that lies still, and the hook that is turned. */
function EndSigns() {
  return (
    <g fontSize="19" fontWeight="700" fill="var(--ink)">
      <text x="10" y={PIPE_Y + 58}>
        {t("end.a")}
      </text>
      <text x={VIEW_WIDTH - 10} y={PIPE_Y + 58} textAnchor="end">
        {t("end.b")}
      </text>
    </g>
  );
}
