import { useState } from "react";
import type { Picture as PictureData, PictureDimension, Plan, Point } from "@/api/types";
import { LABEL_SIZE, layDimensions } from "@/draw/dimensions";
import { type Box, overlap } from "@/draw/labels";
import { type Flat, type Frame, fitTo, polyline, project, type View } from "@/draw/projection";
import { Segments } from "@/ui/segments";
import { type Size, useSize } from "@/ui/use-size";

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
const SAMPLE = 2;
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
  const boxes = [picture.start, ...(picture.end ? [picture.end] : [])].map((box) => around(place(box.point)));
  const numbers = picture.bends.map((bend) =>
    beside(place(bend.point), headingOf(bend.outward, view, 1), thick / 2 + 17, boxes),
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
          chosen={plan.bends[i]?.step === chosen}
          onChoose={() => onChoose(plan.bends[i]?.step ?? 0)}
        />
      ))}
    </svg>
  );
}

/** Where a bend's number stands: on the outside of the bend, clear of the pipe and of the boxes. */
function beside(at: Flat, outward: Flat, away: number, boxes: Box[]): Flat {
  const length = Math.hypot(...outward) || 1;
  const stand: Flat = [at[0] + (outward[0] / length) * away, at[1] + (outward[1] / length) * away];
  const hidden = boxes.some((box) => overlap(box, around(stand)));
  return hidden && away < 3 * BOX ? beside(at, outward, away + BOX / 2, boxes) : stand;
}

const around = ([x, y]: Flat): Box => ({ x: x - 18, y: y - 18, width: 36, height: 36 });

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

const BOX = 34;

interface BoxProps {
  end: "A" | "B";
  at: Flat;
  name: string;
  heading: Flat;
  width: number;
}

const LETTER = 9;

function BoxAt({ end, at, name, heading, width }: BoxProps) {
  const [cx, cy] = [at[0] + (heading[0] * BOX) / 2, at[1] + (heading[1] * BOX) / 2];
  const below = heading[1] >= -0.5;
  const beside = Math.abs(heading[1]) > 0.5;
  // The name goes to the right of the box, or to its left where the sheet ends.
  const side = cx + BOX / 2 + 8 + name.length * LETTER > width ? -1 : 1;
  return (
    <g>
      <rect
        x={cx - BOX / 2}
        y={cy - BOX / 2}
        width={BOX}
        height={BOX}
        rx="3"
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      {end === "A" ? (
        <rect x={cx - 10} y={cy - 10} width="20" height="20" fill="var(--ink)" />
      ) : (
        <circle cx={cx} cy={cy} r="11" fill="var(--ink)" />
      )}
      <text x={cx} y={cy + 5.5} textAnchor="middle" fontSize="15" fontWeight="700" fill="var(--paper)">
        {end}
      </text>
      <text
        x={beside ? cx + side * (BOX / 2 + 8) : cx}
        y={beside ? cy + 6 : cy + (below ? BOX / 2 + 20 : -BOX / 2 - 8)}
        textAnchor={!beside ? "middle" : side > 0 ? "start" : "end"}
        fontSize="16"
        fontWeight="600"
        fill="var(--ink)"
        stroke="var(--sheet)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        {name}
      </text>
    </g>
  );
}

interface DimensionsProps {
  dimensions: PictureDimension[];
  place: (point: number[]) => Flat;
  lines: Flat[][];
  inTheWay: Box[];
  size: Size;
  chosen: number | null;
  onChoose: (step: number) => void;
}

function Dimensions({ dimensions, place, lines, inTheWay, size, chosen, onChoose }: DimensionsProps) {
  const wanted = dimensions.map((one) => ({ from: place(one.start), to: place(one.end), text: one.reads }));
  const sheet = { x: 6, y: 6, width: size.width - 12, height: size.height - 12 };
  const laid = layDimensions(wanted, lines.flatMap(sampled), inTheWay, sheet);
  return (
    <g>
      {laid.map(({ index, ends, line, label }) => {
        const dimension = dimensions[index];
        const step = dimension?.place.startsWith("steps.") ? Number(dimension.place.split(".")[1]) : null;
        const color = step !== null && step === chosen ? "var(--accent)" : "var(--soft)";
        return (
          <g
            key={dimension?.place}
            stroke={color}
            strokeWidth="1.2"
            onPointerDown={() => step !== null && onChoose(step)}
          >
            <line x1={ends[0][0]} y1={ends[0][1]} x2={line[0][0]} y2={line[0][1]} opacity="0.6" />
            <line x1={ends[1][0]} y1={ends[1][1]} x2={line[1][0]} y2={line[1][1]} opacity="0.6" />
            <line x1={line[0][0]} y1={line[0][1]} x2={line[1][0]} y2={line[1][1]} strokeWidth="1.6" />
            {line.map((end) => (
              <circle key={end.join()} cx={end[0]} cy={end[1]} r="3.2" fill={color} stroke="none" />
            ))}
            <rect
              x={label.x}
              y={label.y}
              width={label.width}
              height={label.height}
              rx="4"
              fill="var(--sheet)"
              stroke="none"
            />
            <text
              x={label.x + label.width / 2}
              y={label.y + 20}
              textAnchor="middle"
              fontSize={LABEL_SIZE}
              fontWeight="700"
              fill={step === chosen && step !== null ? "var(--accent)" : "var(--ink)"}
              stroke="none"
              className="tape"
            >
              {dimension?.reads}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** Points every few pixels along a polyline, for keeping labels off the pipe. */
function sampled(line: Flat[]): Flat[] {
  return line.flatMap((end, i) => {
    const start = line[i - 1];
    if (!start) return [end];
    const count = Math.ceil(Math.hypot(end[0] - start[0], end[1] - start[1]) / (4 * SAMPLE));
    return Array.from({ length: count }, (_, k): Flat => {
      const part = (k + 1) / count;
      return [start[0] + (end[0] - start[0]) * part, start[1] + (end[1] - start[1]) * part];
    });
  });
}

interface BendNumberProps {
  number: number;
  at: Flat;
  chosen: boolean;
  onChoose: () => void;
}

function BendNumber({ number, at: [x, y], chosen, onChoose }: BendNumberProps) {
  return (
    <g onPointerDown={onChoose} className="cursor-pointer">
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
