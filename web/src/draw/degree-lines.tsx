import type { ShoeUsed } from "@/api/types";

type Spot = [number, number];

interface Props {
  shoe: ShoeUsed;
  /** Where on the drawing a place lies that far along the arc (radians) and out from its centre (its radius is 1). */
  at: (turned: number, out: number) => Spot;
  /** What the dial is to show for the bend, if one is made: its line stands out. */
  dial?: string | undefined;
  /** Names are left out where the drawing is too small to read them. */
  named: boolean;
  onDark?: boolean;
}

/** Below this the notch's sign is in the way of names. */
const CROWDED = 50;

/** The degree lines on the shoe's side, each where the pipe leaves the groove when it is bent so far. */
export function DegreeLines({ shoe, at, dial, named, onDark = false }: Props) {
  return (
    <g>
      {shoe.degree_lines.map(({ reads, true: angle }) => {
        const turned = (angle * Math.PI) / 180;
        const [x1, y1] = at(turned, named ? 0.8 : 0.72);
        const [x2, y2] = at(turned, 0.97);
        const used = reads === dial;
        const [x, y] = at(turned, angle < CROWDED ? 0.28 : 0.66);
        const plain = onDark ? "var(--paper)" : "var(--ink)";
        const color = used ? "var(--accent)" : plain;
        return (
          <g key={reads} stroke={color} fill={color}>
            <line x1={x1} y1={y1} x2={x2} y2={y2} strokeWidth={used ? 3.5 : 1.75} />
            {named && (used || angle >= CROWDED) && (
              <text
                x={x}
                y={y + 5}
                textAnchor="middle"
                fontSize={used ? 20 : 19}
                fontWeight={used ? 700 : 500}
                stroke="none"
              >
                {reads}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
