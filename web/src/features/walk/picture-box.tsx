import type { Flat } from "@/draw/projection";

export const BOX = 34;

interface BoxProps {
  end: "A" | "B";
  at: Flat;
  name: string;
  heading: Flat;
  width: number;
}

const LETTER = 9;

/** A box at an end of the run, with its letter in its shape, and its name beside it. */
export function BoxAt({ end, at, name, heading, width }: BoxProps) {
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
