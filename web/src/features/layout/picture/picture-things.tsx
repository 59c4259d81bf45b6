import type { Picture, PictureFitting, PictureThing, Point } from "@/api/types";
import { hull } from "@/draw/hull";
import { type Box, overlap } from "@/draw/labels";
import { type Flat, polyline } from "@/draw/projection";
import { t } from "@/words/layout";

type Place = (point: number[]) => Flat;

const outline = (points: number[][], place: Place): string => `${polyline(hull(points.map(place)))}Z`;

/** What the run lies against. Seen edge on, a surface is a line. */
export function Surfaces({ surfaces, place }: { surfaces: Picture["surfaces"]; place: Place }) {
  return surfaces.map((surface) => (
    <path
      key={surface.corners.join(" ")}
      d={outline(surface.corners, place)}
      fill="var(--paper)"
      fillOpacity="0.6"
      stroke="var(--line)"
      strokeWidth="1.5"
    />
  ));
}

interface ThingsProps {
  things: PictureThing[];
  place: Place;
  chosen: number | null;
  onChoose: (step: number) => void;
}

/** What is to be got over, and the clearance kept around it. */
export function Things({ things, place, chosen, onChoose }: ThingsProps) {
  return things.map((thing) => {
    const color = thing.step === chosen ? "var(--accent)" : "var(--soft)";
    return (
      <g key={thing.step} onPointerDown={() => onChoose(thing.step)} className="cursor-pointer">
        <path
          d={outline([...thing.kept_clear.near, ...thing.kept_clear.far], place)}
          fill="none"
          stroke={color}
          strokeWidth="1.4"
          strokeDasharray="5 5"
        />
        <path
          d={outline([...thing.body.near, ...thing.body.far], place)}
          fill="url(#hatch)"
          stroke={color}
          strokeWidth="2"
        />
      </g>
    );
  });
}

const LETTER = 8.4;
const LINE = 22;
const MOST_TRIES = 6;

const labelOf = (thing: PictureThing): string =>
  `${thing.name || t("thing.unnamed")}${thing.clearance && ` · ${passes(thing.clearance)}`}`;

/** How it is passed: so much clear of it, or so deep into it. */
const passes = (clearance: string): string =>
  clearance.startsWith("-")
    ? t("thing.into", { clearance: clearance.slice(1) })
    : t("thing.clear", { clearance });

/** Where the things' names stand: beneath their bodies, clear of each other and of what is in the way. */
export function thingLabels(things: PictureThing[], place: Place, inTheWay: Box[]): Box[] {
  const laid: Box[] = [];
  for (const thing of things) {
    const points = [...thing.body.near, ...thing.body.far].map(place);
    const middle = centre(points)[0];
    const bottom = Math.max(...points.map((point) => point[1]));
    const width = labelOf(thing).length * LETTER;
    const tries = Array.from({ length: MOST_TRIES }, (_, i) => ({
      x: middle - width / 2,
      y: bottom + 6 + i * LINE,
      width,
      height: LINE,
    }));
    const free = tries.find((box) => ![...inTheWay, ...laid].some((other) => overlap(box, other)));
    laid.push(free ?? (tries[0] as Box));
  }
  return laid;
}

interface NamesProps {
  things: PictureThing[];
  labels: Box[];
  chosen: number | null;
}

export function ThingNames({ things, labels, chosen }: NamesProps) {
  return things.map((thing, i) => {
    const box = labels[i];
    if (!box) return null;
    return (
      <text
        key={thing.step}
        x={box.x + box.width / 2}
        y={box.y + 16}
        textAnchor="middle"
        fontSize="16"
        fontWeight="600"
        fill={thing.step === chosen ? "var(--accent)" : "var(--ink)"}
        stroke="var(--sheet)"
        strokeWidth="4"
        paintOrder="stroke"
        pointerEvents="none"
        className="tape"
      >
        {labelOf(thing)}
      </text>
    );
  });
}

/** The lines that fill what is solid. */
export function Hatch() {
  return (
    <defs>
      <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="7" height="7" fill="var(--well)" />
        <line x1="0" y1="0" x2="0" y2="7" stroke="var(--line)" strokeWidth="2" />
      </pattern>
    </defs>
  );
}

interface FittingsProps {
  fittings: PictureFitting[];
  place: Place;
  along: (heading: Point) => Flat;
  thick: number;
}

/** Couplings as sleeves, straps as bands, pull points as small boxes, each across or along the pipe. */
export function Fittings({ fittings, place, along, thick }: FittingsProps) {
  return fittings.map((fitting) => {
    const [x, y] = place(fitting.point);
    const [dx, dy] = along(fitting.heading as Point);
    const degrees = (Math.atan2(dy, dx) * 180) / Math.PI;
    const seen = Math.hypot(dx, dy);
    return (
      <g
        key={`${fitting.kind} ${fitting.point.join()}`}
        transform={`translate(${x} ${y}) rotate(${degrees})`}
      >
        <FittingShape kind={fitting.kind} thick={thick} seen={seen} />
        <title>
          {fitting.kind === "pull_point" ? t("picture.pull_point", { fitting: fitting.name }) : fitting.kind}
        </title>
      </g>
    );
  });
}

function FittingShape({ kind, thick, seen }: { kind: PictureFitting["kind"]; thick: number; seen: number }) {
  if (kind === "strap")
    return <rect x={-3} y={-thick / 2 - 5} width={6} height={thick + 10} fill="var(--pipe-edge)" rx="1.5" />;
  const [long, wide] = kind === "coupling" ? [Math.max(thick * 1.6 * seen, 8), thick + 7] : [26, 26];
  return (
    <rect
      x={-long / 2}
      y={-wide / 2}
      width={long}
      height={wide}
      rx="3"
      fill={kind === "coupling" ? "var(--pipe-light)" : "var(--paper)"}
      stroke="var(--ink)"
      strokeWidth="2"
    />
  );
}

const centre = (points: Flat[]): Flat => {
  const xs = points.map((point) => point[0]);
  const ys = points.map((point) => point[1]);
  return [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2];
};
