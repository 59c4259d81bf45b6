import type { ReactNode } from "react";
import type { TapeLying } from "@/api/types";
import { EndSign } from "./end-sign";
import { NumberTab } from "./number-tab";

interface Props {
  lies: TapeLying;
  /** The bend's, in degrees: the drawing shows about that. */
  angle: number;
}

type Place = [number, number];

const WIDTH = 150;
const HEIGHT = 84;
const THICK = 10;
const ROUND = 14;

/** How a tape lies for a reading: what it hooks on, where the straight edge lies, where it is read. */
export function TapeDrawing({ lies, angle }: Props) {
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-[150px] shrink-0" aria-hidden="true">
      {DRAWN[lies.kind](lies, angle)}
    </svg>
  );
}

const DRAWN: Record<TapeLying["kind"], (lies: TapeLying, angle: number) => ReactNode> = {
  corner: ({ hook }, angle) => (
    <Mirrored is={hook === "end_b"}>
      <ToCorner angle={angle} />
      <EndSign end={hook === "end_b" ? "B" : "A"} x={hook === "end_b" ? WIDTH - 14 : 14} y={34} size={16} />
    </Mirrored>
  ),
  back: ({ hook, back }) => (
    <ToCorner angle={90} back={hook === "back" ? back : null} sign={hook === "end_a"} />
  ),
  end_b: ({ back }) => (
    <>
      <Pipe through={[at(26, 8), at(26, 58), at(124, 58)]} />
      <Edge from={at(21, 4)} to={at(21, 78)} />
      <Tape from={at(21, 69)} to={at(124, 69)} />
      {back !== null && <NumberTab number={back} x={47} y={22} chosen={false} />}
      <EndSign end="B" x={132} y={38} size={16} />
    </>
  ),
  rise: () => (
    <>
      <Pipe through={[at(4, 64), at(48, 64), at(92, 26), at(146, 26)]} />
      <Edge from={at(4, 59)} to={at(138, 59)} />
      <Tape from={at(122, 59)} to={at(122, 21)} />
    </>
  ),
  height: () => (
    <>
      <Pipe through={[at(4, 58), at(40, 58), at(75, 24), at(110, 58), at(146, 58)]} />
      <Edge from={at(4, 63)} to={at(146, 63)} />
      <Tape from={at(75, 63)} to={at(75, 39)} />
    </>
  ),
  kick: () => (
    <>
      <Pipe through={[at(4, 62), at(60, 62), at(116, 34)]} />
      <circle
        cx="120"
        cy="32"
        r={THICK / 2 + 1}
        fill="var(--pipe)"
        stroke="var(--pipe-edge)"
        strokeWidth="2"
      />
      <Edge from={at(4, 57)} to={at(140, 57)} />
      <Tape from={at(130, 57)} to={at(130, 27)} />
    </>
  ),
};

const at = (x: number, y: number): Place => [x, y];

/** Along the outside of a leg to where a straight edge along the outside of the other crosses it. */
function ToCorner({ angle, back = null, sign }: { angle: number; back?: number | null; sign?: boolean }) {
  const turn = (Math.min(100, Math.max(18, angle)) * Math.PI) / 180;
  const corner = at(turn > 1.2 ? 112 : 88, 58);
  const reach = turn > 1.2 ? 52 : 56;
  const ahead = at(Math.cos(turn), -Math.sin(turn));
  const outside = (along: number): Place => [
    corner[0] + (THICK / 2) * Math.tan(turn / 2) + along * ahead[0],
    corner[1] + THICK / 2 + along * ahead[1],
  ];
  const begins = back === null ? 6 : 26;
  const start = back === null ? [at(begins, 58)] : [at(begins, 12), at(begins, 58)];
  const hook = back === null ? begins : begins - THICK / 2;
  const end = at(corner[0] + reach * ahead[0], corner[1] + reach * ahead[1]);
  const along = THICK / 2 + 6;
  return (
    <>
      <Pipe through={[...start, corner, end]} />
      {back !== null && <Edge from={at(hook, 8)} to={at(hook, 78)} />}
      <Edge from={outside(-16)} to={outside(reach)} />
      <Tape from={at(hook, 58 + along)} to={at(outside(0)[0] - 6 / Math.tan(turn), 58 + along)} />
      {back !== null && <NumberTab number={back} x={47} y={22} chosen={false} />}
      {sign && <EndSign end="A" x={14} y={34} size={16} />}
    </>
  );
}

/** Drawn the other way round; signs stay as they are read, put where they are to be. */
function Mirrored({ is, children }: { is: boolean; children: [ReactNode, ReactNode] }) {
  return (
    <>
      <g transform={is ? `translate(${WIDTH} 0) scale(-1 1)` : undefined}>{children[0]}</g>
      {children[1]}
    </>
  );
}

function Pipe({ through }: { through: Place[] }) {
  const path = through
    .map((here, index) => {
      const before = through[index - 1];
      const after = through[index + 1];
      if (!before || !after) return `${index ? "L" : "M"}${here.join(" ")}`;
      return `L${toward(here, before).join(" ")}Q${here.join(" ")} ${toward(here, after).join(" ")}`;
    })
    .join("");
  return (
    <>
      <path d={path} fill="none" stroke="var(--pipe-edge)" strokeWidth={THICK} />
      <path d={path} fill="none" stroke="var(--pipe)" strokeWidth={THICK - 3} />
    </>
  );
}

function toward([x, y]: Place, [toX, toY]: Place): Place {
  const far = Math.hypot(toX - x, toY - y);
  const part = Math.min(ROUND, far / 2) / far;
  return [x + part * (toX - x), y + part * (toY - y)];
}

function Edge({ from, to }: { from: Place; to: Place }) {
  return <Line from={from} to={to} stroke="var(--ink)" strokeWidth="2" />;
}

/** Hooked at its beginning, read at its end. */
function Tape({ from, to }: { from: Place; to: Place }) {
  const far = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const square: Place = [((to[1] - from[1]) / far) * 6, (-(to[0] - from[0]) / far) * 6];
  const tick = (place: Place): [Place, Place] => [
    [place[0] - square[0], place[1] - square[1]],
    [place[0] + square[0], place[1] + square[1]],
  ];
  return (
    <g>
      <Line from={from} to={to} stroke="var(--accent)" strokeWidth="3.5" />
      {[from, to].map((place) => {
        const [one, other] = tick(place);
        return <Line key={place.join()} from={one} to={other} stroke="var(--accent)" strokeWidth="2.5" />;
      })}
    </g>
  );
}

function Line({ from, to, ...look }: { from: Place; to: Place; stroke: string; strokeWidth: string }) {
  return <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} {...look} />;
}
