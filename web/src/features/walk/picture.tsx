import { useState } from "react";
import type { Picture as PictureData, Plan, Point } from "@/api/types";
import { type Box, overlap } from "@/draw/labels";
import { type Flat, type Frame, fitTo, polyline, project, type View } from "@/draw/projection";
import { Segments } from "@/ui/segments";
import { type Size, useSize } from "@/ui/use-size";
import { BOX, BoxAt } from "./picture-box";
import { Dimensions } from "./picture-dimensions";

const VIEWS: { value: View; label: string }[] = [
  { value: "front", label: "Front" },
  { value: "plan", label: "From above" },
  { value: "side", label: "From the right" },
];
const FOOT = 12;
const MARGIN = 62;
// What the view control takes at the top.
const HEADROOM = 36;
const LARGEST_SCALE = 16;
const VIEW_CONTROL: Box = { x: 0, y: 0, width: 330, height: 58 };

interface Props {
  plan: Plan;
  chosen: number | null;
  onChoose: (step: number) => void;
}

/** The run in space at true proportions, as pipe, with the measurements where they were taken. */
export function Picture({ plan, chosen, onChoose }: Props) {
  const [view, setView] = useState<View>("front");
  const [ref, size] = useSize<HTMLDivElement>();
  return (
    <section aria-label="Picture" className="relative min-h-64 flex-1 overflow-hidden max-lg:min-h-[26rem]">
      <div ref={ref} className="absolute inset-0">
        {plan.picture && size.width > 0 && (
          <Drawing
            plan={plan}
            picture={plan.picture}
            view={view}
            size={size}
            chosen={chosen}
            onChoose={onChoose}
          />
        )}
      </div>
      <div className="absolute top-3 left-3">
        <Segments label="View" value={view} choices={VIEWS} onChoose={setView} />
      </div>
    </section>
  );
}

interface DrawingProps extends Props {
  picture: PictureData;
  view: View;
  size: Size;
}

function Drawing({ plan, picture, view, size, chosen, onChoose }: DrawingProps) {
  const flat = (point: Point) => project(point, view);
  const points = picture.lines.flat().map((point) => flat(point as Point));
  const frame = fitTo(points, size.width, size.height, MARGIN, LARGEST_SCALE, HEADROOM);
  const place = (point: number[]): Flat => frame.place(flat(point as Point));
  const lines = picture.lines.map((line) => line.map(place));
  const thick = Math.max((plan.shoe?.diameter ?? 1) * frame.scale, 5);
  const whole = polyline(lines.flat());
  // Lines alternate: leg, arc, leg, arc …; arc number k is line 2k + 1.
  const boxes = [picture.start, ...(picture.end ? [picture.end] : [])].map((box) =>
    boxAround(place(box.point)),
  );
  const numbers = placeNumbers(
    picture.bends.map((bend) => ({ at: place(bend.point), outward: headingOf(bend.outward, view, 1) })),
    thick / 2 + 17,
    boxes,
  );
  const inTheWay = [VIEW_CONTROL, ...numbers.map(around), ...boxes];
  const arcs = plan.bends.map((bend, i) => ({ bend, path: polyline(lines[2 * i + 1] ?? []) }));
  return (
    <svg width={size.width} height={size.height} role="img" aria-label={`${plan.name}, to scale`}>
      <Grid frame={frame} size={size} />
      <path d={whole} fill="none" stroke="var(--pipe-edge)" strokeWidth={thick + 3} strokeLinejoin="round" />
      <path d={whole} fill="none" stroke="var(--pipe)" strokeWidth={thick} strokeLinejoin="round" />
      {arcs.map(({ bend, path }) => (
        <path
          key={bend.number}
          d={path}
          fill="none"
          stroke={bend.step === chosen ? "var(--accent)" : "var(--bend)"}
          strokeWidth={thick}
        />
      ))}
      <path
        d={whole}
        fill="none"
        stroke="var(--pipe-light)"
        strokeWidth={thick * 0.28}
        strokeLinejoin="round"
        opacity="0.75"
      />
      {!plan.complete && <LooseEnd at={lines.at(-1)?.at(-1)} />}
      {picture.couplings.map((coupling) => (
        <Coupling key={coupling.join()} at={place(coupling)} size={thick} />
      ))}
      <BoxAt
        end="A"
        at={place(picture.start.point)}
        name={picture.start.name}
        heading={headingOf(picture.start.heading, view, -1)}
        width={size.width}
      />
      {picture.end && (
        <BoxAt
          end="B"
          at={place(picture.end.point)}
          name={picture.end.name}
          heading={headingOf(picture.end.heading, view, 1)}
          width={size.width}
        />
      )}
      <Dimensions
        dimensions={picture.dimensions}
        place={place}
        lines={lines}
        inTheWay={inTheWay}
        size={size}
        chosen={chosen}
        onChoose={onChoose}
      />
      {picture.bends.map((bend, i) => (
        <BendNumber
          key={bend.number}
          number={bend.number}
          at={numbers[i] ?? [0, 0]}
          bend={place(bend.point)}
          chosen={plan.bends[i]?.step === chosen}
          onChoose={() => onChoose(plan.bends[i]?.step ?? 0)}
        />
      ))}
    </svg>
  );
}

interface Numbered {
  at: Flat;
  outward: Flat;
}

// Seen end on, a bend's outside is nowhere: its number then goes this way.
const ASLANT: Flat = [0.7, -0.7];
const END_ON = 0.3;
const MOST_TRIES = 6;

/** Where the bends' numbers stand: on the outside, clear of the pipe, of the boxes and of each other. */
function placeNumbers(bends: Numbered[], away: number, boxes: Box[]): Flat[] {
  const stands: Flat[] = [];
  for (const { at, outward } of bends) {
    const length = Math.hypot(...outward);
    const [x, y]: Flat = length < END_ON ? ASLANT : [outward[0] / length, outward[1] / length];
    const tries = Array.from({ length: MOST_TRIES }, (_, i): Flat => {
      const far = away + (i * BOX) / 2;
      return [at[0] + x * far, at[1] + y * far];
    });
    const taken = [...boxes, ...stands.map(around)];
    const free = tries.find((stand) => !taken.some((box) => overlap(box, around(stand))));
    stands.push(free ?? tries[0] ?? at);
  }
  return stands;
}

const boxAround = ([x, y]: Flat): Box => ({ x: x - 20, y: y - 20, width: 40, height: 40 });
const around = ([x, y]: Flat): Box => ({ x: x - 16, y: y - 14, width: 32, height: 28 });

function headingOf(heading: number[], view: View, sign: 1 | -1): Flat {
  const [x, y] = project(heading as Point, view);
  return [x * sign, y * sign];
}

/** A line each foot, so that the eye has a measure. */
function Grid({ frame, size }: { frame: Frame; size: Size }) {
  const step = FOOT * frame.scale;
  const [x0, y0] = frame.place([0, 0]);
  const lines = (from: number, to: number) => {
    const first = from % step;
    return Array.from({ length: Math.max(0, Math.ceil((to - first) / step)) }, (_, i) => first + i * step);
  };
  return (
    <g stroke="var(--grid)" strokeWidth="1">
      {lines(x0, size.width).map((x) => (
        <line key={`x${x}`} x1={x} x2={x} y1="0" y2={size.height} />
      ))}
      {lines(y0, size.height).map((y) => (
        <line key={`y${y}`} x1="0" x2={size.width} y1={y} y2={y} />
      ))}
      <text
        x={size.width - 12}
        y={size.height - 10}
        textAnchor="end"
        stroke="none"
        fill="var(--soft)"
        fontSize="14"
      >
        a square is one foot
      </text>
    </g>
  );
}

function LooseEnd({ at }: { at: Flat | undefined }) {
  if (!at) return null;
  return (
    <g>
      <circle
        cx={at[0]}
        cy={at[1]}
        r="13"
        fill="var(--paper)"
        stroke="var(--stop)"
        strokeWidth="3"
        strokeDasharray="5 4"
      />
      <text x={at[0]} y={at[1] + 6} textAnchor="middle" fontSize="17" fontWeight="700" fill="var(--stop)">
        ?
      </text>
    </g>
  );
}

function Coupling({ at, size }: { at: Flat; size: number }) {
  return (
    <g>
      <rect
        x={at[0] - size * 0.9}
        y={at[1] - size * 0.9}
        width={size * 1.8}
        height={size * 1.8}
        rx="3"
        fill="var(--pipe-edge)"
      />
      <title>coupling</title>
    </g>
  );
}

interface BendNumberProps {
  number: number;
  at: Flat;
  bend: Flat;
  chosen: boolean;
  onChoose: () => void;
}

function BendNumber({ number, at: [x, y], bend, chosen, onChoose }: BendNumberProps) {
  return (
    <g onPointerDown={onChoose} className="cursor-pointer">
      <line
        x1={bend[0]}
        y1={bend[1]}
        x2={x}
        y2={y}
        stroke={chosen ? "var(--accent)" : "var(--soft)"}
        strokeWidth="1.2"
      />
      <rect
        x={x - 14}
        y={y - 12}
        width="28"
        height="24"
        rx="12"
        fill={chosen ? "var(--accent)" : "var(--ink)"}
      />
      <text
        x={x}
        y={y + 5.5}
        textAnchor="middle"
        fontSize="15"
        fontWeight="700"
        fill={chosen ? "var(--on-accent)" : "var(--paper)"}
      >
        {number}
      </text>
    </g>
  );
}
