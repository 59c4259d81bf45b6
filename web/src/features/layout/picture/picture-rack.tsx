import type { RackedPipe, RackPlan } from "@/api/types";
import { type Box, overlap } from "@/draw/labels";
import { type Flat, polyline } from "@/draw/projection";

/** The pipes beside the lead that are there. */
export const besideOf = (rack: RackPlan | undefined): RackedPipe[] =>
  (rack?.pipes ?? []).filter((pipe) => pipe.number > 1 && !pipe.free);

interface Props {
  rack: RackPlan;
  pipes: RackedPipe[];
  place: (point: number[]) => Flat;
  scale: number;
  /** What numbers must not cover. */
  inTheWay: Box[];
}

const NUMBER_ROOM = 14;
const ON_LEG = 18;
const LEAST_THICK = 3;

/** The pipes beside the lead, their numbers, and the struts that carry them. */
export function RackPicture({ rack, pipes, place, scale, inTheWay }: Props) {
  return (
    <g data-testid="rack">
      {rack.struts.map((strut) => (
        <path
          key={strut.at.inches}
          d={polyline(strut.ends.map(place))}
          stroke="var(--soft)"
          strokeWidth={Math.max(scale, 3)}
          opacity="0.5"
        />
      ))}
      {pipes.map((pipe) => (
        <PipeBeside
          key={pipe.number}
          line={polyline(pipe.lines.flat().map(place))}
          thick={Math.max(pipe.diameter * scale, LEAST_THICK)}
          makeable={pipe.makeable}
        />
      ))}
      {numbersOf(pipes, place, inTheWay).map(({ number, at }) => (
        <text
          key={number}
          x={at[0]}
          y={at[1] + 5}
          textAnchor="middle"
          fontSize="14"
          fontWeight="700"
          fill="var(--ink)"
          stroke="var(--sheet)"
          strokeWidth="4"
          paintOrder="stroke"
          className="tape"
        >
          {number}
        </text>
      ))}
    </g>
  );
}

function PipeBeside({ line, thick, makeable }: { line: string; thick: number; makeable: boolean }) {
  return (
    <g fill="none" strokeLinejoin="round">
      <path d={line} stroke={makeable ? "var(--soft)" : "var(--stop)"} strokeWidth={thick + 2} />
      <path d={line} stroke="var(--paper)" strokeWidth={Math.max(thick - 0.5, 1)} data-testid="beside" />
    </g>
  );
}

/** Each pipe's number, where there is room for it: beyond its end B, beyond its end A, or on its first leg. */
function numbersOf(pipes: RackedPipe[], place: (point: number[]) => Flat, taken: Box[]): Numbered[] {
  const shown: Numbered[] = [];
  for (const pipe of pipes.toReversed()) {
    const points = pipe.lines.flat();
    const [first, second] = points;
    const [before, last] = points.slice(-2);
    if (!first || !second || !before || !last) continue;
    const inTheWay = [...taken, ...shown.map(around)];
    const places = [
      beyond(place(before), place(last), NUMBER_ROOM),
      beyond(place(second), place(first), NUMBER_ROOM),
      beyond(place(second), place(first), -ON_LEG * (1 + (pipe.number % 4))),
    ];
    const found = places
      .map((at): Numbered => ({ number: pipe.number, at }))
      .find((one) => !inTheWay.some((box) => overlap(box, around(one))));
    if (found) shown.push(found);
  }
  return shown;
}

/** A place so far beyond the second point, seen from the first. */
function beyond(from: Flat, to: Flat, far: number): Flat {
  const long = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const [x, y]: Flat = long < 1 ? [0, -1] : [(to[0] - from[0]) / long, (to[1] - from[1]) / long];
  return [to[0] + x * far, to[1] + y * far];
}

interface Numbered {
  number: number;
  at: Flat;
}

const around = ({ number, at: [x, y] }: Numbered): Box => {
  const wide = number > 9 ? 20 : 12;
  return { x: x - wide / 2, y: y - 8, width: wide, height: 16 };
};
