import { memo, useContext } from "react";
import type { MarksJudged, Picture as PictureData, Plan, Point, RackPlan } from "@/api/types";
import { type Box, overlap } from "@/draw/labels";
import { NumberTab } from "@/draw/number-tab";
import { type Flat, type Frame, fitTo, polyline, project, type View } from "@/draw/projection";
import { TapeContext } from "@/ui/tape-field";
import type { Size } from "@/ui/use-size";
import { t } from "@/words/layout";
import { isNumbered } from "./numbered";
import { BOX, BoxAt, boxAreas } from "./picture-box";
import { Dimensions } from "./picture-dimensions";
import { besideOf, RackPicture } from "./picture-rack";
import { Fittings, Hatch, Surfaces, ThingNames, Things, thingLabels } from "./picture-things";
import { runInWords } from "./run-in-words";

const FOOT = 12;
const HALF_A_METRE = 500 / 25.4;
/** What stays free around the run: the edge, and at the top what the view control takes, which a low picture has not. */
const ROOM = { margin: 62, headroom: 36 };
const LOW_ROOM = { margin: 44, headroom: 0 };
const LARGEST_SCALE = 16;
const VIEW_CONTROL: Box = { x: 0, y: 0, width: 400, height: 58 };

interface Props {
  plan: Plan;
  /** The pipes beside it. */
  rack: RackPlan | undefined;
  picture: PictureData;
  view: View;
  size: Size;
  chosen: number | null;
  onChoose: (step: number) => void;
  /** The pipe that laid marks would make, drawn over the planned one. */
  judged: MarksJudged | null;
  /** There is room for the run alone. */
  isLow?: boolean;
}

/** The run seen from one side, as pipe, with the measurements where they were taken. */
export const FlatPicture = memo(function FlatPicture(props: Props) {
  const { plan, rack, picture, view, size, chosen, onChoose, judged, isLow = false } = props;
  const beside = besideOf(rack);
  const flat = (point: Point) => project(point, view);
  const bodies = picture.things.flatMap((thing) => [...thing.body.near, ...thing.body.far]);
  const racked = beside.flatMap((pipe) => pipe.lines.flat());
  const points = [...picture.lines.flat(), ...racked, ...bodies].map((point) => flat(point as Point));
  const { margin, headroom } = isLow ? LOW_ROOM : ROOM;
  const frame = fitTo(points, size.width, size.height, margin, LARGEST_SCALE, headroom);
  const place = (point: number[]): Flat => frame.place(flat(point as Point));
  const lines = picture.lines.map((line) => line.map(place));
  const thick = Math.max((plan.shoe?.diameter ?? 1) * frame.scale, 5);
  const ends = [
    { end: "A" as const, of: picture.start, sign: -1 as const },
    ...(picture.end ? [{ end: "B" as const, of: picture.end, sign: 1 as const }] : []),
  ].map(({ end, of, sign }) => ({
    end,
    at: place(of.point),
    name: of.name,
    heading: headingOf(of.heading, view, sign),
    width: size.width,
  }));
  const boxes = ends.flatMap(boxAreas);
  const numbered = picture.bends.filter((bend) => isNumbered(plan, bend.number, true));
  const numbers = placeNumbers(
    numbered.map((bend) => ({ at: place(bend.point), outward: headingOf(bend.outward, view, 1) })),
    thick / 2 + 17,
    boxes,
  );
  const control = isLow ? [] : [VIEW_CONTROL];
  const inTheWay = [...control, ...numbers.map(around), ...boxes];
  const names = thingLabels(picture.things, place, inTheWay);
  const stepOf = (number: number): number => plan.bends[number - 1]?.step ?? 0;
  return (
    <svg
      width={size.width}
      height={size.height}
      role="img"
      aria-label={t("picture.to_scale", { plan: plan.name })}
      aria-description={runInWords(plan)}
    >
      <Hatch />
      <Surfaces surfaces={picture.surfaces} place={place} />
      <Grid frame={frame} size={size} />
      <Things things={picture.things} place={place} chosen={chosen} onChoose={onChoose} />
      {rack && (
        <RackPicture
          rack={rack}
          pipes={beside}
          place={place}
          scale={frame.scale}
          inTheWay={[...control, ...boxes]}
        />
      )}
      <Pipe plan={plan} lines={lines} thick={thick} chosen={chosen} onChoose={onChoose} />
      {!plan.complete && <LooseEnd at={lines.at(-1)?.at(-1)} />}
      <Fittings
        fittings={picture.fittings}
        place={place}
        along={(heading) => headingOf(heading, view, 1)}
        thick={thick}
      />
      {ends.map((box) => (
        <BoxAt key={box.end} {...box} />
      ))}
      {picture.end && picture.measured_end && (
        <MeasuredEnd at={place(picture.measured_end)} from={place(picture.end.point)} />
      )}
      {judged && !judged.right && <Made lines={judged.lines.map((line) => line.map(place))} thick={thick} />}
      <Dimensions
        dimensions={picture.dimensions}
        place={place}
        lines={lines}
        inTheWay={[...inTheWay, ...names]}
        size={size}
        chosen={chosen}
        onChoose={onChoose}
      />
      <ThingNames things={picture.things} labels={names} chosen={chosen} />
      {numbered.map((bend, i) => (
        <BendNumber
          key={bend.number}
          number={bend.number}
          at={numbers[i] ?? [0, 0]}
          bend={place(bend.point)}
          chosen={stepOf(bend.number) === chosen}
          onChoose={() => onChoose(stepOf(bend.number))}
        />
      ))}
    </svg>
  );
});

interface PipeProps {
  plan: Plan;
  lines: Flat[][];
  thick: number;
  chosen: number | null;
  onChoose: (step: number) => void;
}

/** Lines alternate: leg, arc, leg, arc …; the arc of bend k + 1 is line 2k + 1. */
function Pipe({ plan, lines, thick, chosen, onChoose }: PipeProps) {
  const whole = polyline(lines.flat());
  return (
    <g fill="none" strokeLinejoin="round">
      <path d={whole} stroke="var(--pipe-edge)" strokeWidth={thick + 3} />
      <path d={whole} stroke="var(--pipe)" strokeWidth={thick} data-testid="pipe" />
      {plan.bends.map((bend, i) => (
        <path
          key={bend.number}
          d={polyline(lines[2 * i + 1] ?? [])}
          stroke={bend.step === chosen ? "var(--accent)" : "var(--bend)"}
          strokeWidth={thick}
        />
      ))}
      <path
        d={whole}
        stroke="var(--pipe-light)"
        strokeWidth={thick * 0.28}
        opacity="0.75"
        pointerEvents="none"
      />
      {plan.bends.map((bend, i) => (
        <path
          key={bend.number}
          d={polyline(lines[2 * i + 1] ?? [])}
          stroke="transparent"
          strokeWidth={Math.max(thick, 28)}
          onPointerDown={() => onChoose(bend.step)}
          className="cursor-pointer"
        />
      ))}
    </g>
  );
}

/** The pipe that laid marks would make. */
function Made({ lines, thick }: { lines: Flat[][]; thick: number }) {
  return (
    <path
      data-testid="made"
      d={polyline(lines.flat())}
      fill="none"
      stroke="var(--stop)"
      strokeWidth={Math.max(thick * 0.45, 3)}
      strokeDasharray="10 6"
      pointerEvents="none"
    />
  );
}

/** Where the end box is by its own measures, and how far the run ends from it. */
function MeasuredEnd({ at, from }: { at: Flat; from: Flat }) {
  return (
    <g stroke="var(--accent)" strokeWidth="2" fill="none">
      <line x1={from[0]} y1={from[1]} x2={at[0]} y2={at[1]} />
      <circle cx={at[0]} cy={at[1]} r="9" strokeDasharray="4 3" />
      <title>{t("picture.end_by_own")}</title>
    </g>
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

const around = ([x, y]: Flat): Box => ({ x: x - 16, y: y - 14, width: 32, height: 28 });

function headingOf(heading: number[], view: View, sign: 1 | -1): Flat {
  const [x, y] = project(heading as Point, view);
  return [x * sign, y * sign];
}

/** A line each foot, so that the eye has a measure. */
function Grid({ frame, size }: { frame: Frame; size: Size }) {
  const isMetric = useContext(TapeContext) === "1 mm";
  const step = (isMetric ? HALF_A_METRE : FOOT) * frame.scale;
  const [x0, y0] = frame.place([0, 0]);
  const lines = (from: number, to: number) => {
    const first = from % step;
    return Array.from({ length: Math.max(0, Math.ceil((to - first) / step)) }, (_, i) => first + i * step);
  };
  const across = lines(x0, size.width).map((x) => `M${x.toFixed(1)} 0V${size.height}`);
  const down = lines(y0, size.height).map((y) => `M0 ${y.toFixed(1)}H${size.width}`);
  return (
    <g stroke="var(--grid)" strokeWidth="1">
      <path d={[...across, ...down].join("")} />
      <text
        x={size.width - 12}
        y={size.height - 10}
        textAnchor="end"
        stroke="none"
        fill="var(--soft)"
        fontSize="14"
      >
        {t(isMetric ? "picture.square_half_metre" : "picture.square_foot")}
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
      <NumberTab number={number} x={x} y={y} chosen={chosen} />
    </g>
  );
}
