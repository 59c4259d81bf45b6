import { EndSign } from "@/draw/end-sign";
import type { Box } from "@/draw/labels";
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
const LINE = 22;

const middleOf = ({ at, heading }: BoxProps): Flat => [
  at[0] + (heading[0] * BOX) / 2,
  at[1] + (heading[1] * BOX) / 2,
];

/** Where the box's name goes: beside a pipe that runs up or down, else over or under it, within the sheet. */
function nameBox(props: BoxProps): Box {
  const [cx, cy] = middleOf(props);
  const wide = props.name.length * LETTER;
  const size = { width: wide, height: LINE };
  if (Math.abs(props.heading[1]) > 0.5) {
    const right = cx + BOX / 2 + 8;
    return { ...size, x: right + wide > props.width ? cx - BOX / 2 - 8 - wide : right, y: cy - LINE / 2 };
  }
  const x = Math.min(Math.max(cx - wide / 2, 4), props.width - wide - 4);
  return { ...size, x, y: cy + BOX / 2 + 4 };
}

/** What the box and its name take of the sheet. */
export const boxAreas = (props: BoxProps): Box[] => {
  const [cx, cy] = middleOf(props);
  return [{ x: cx - BOX / 2 - 3, y: cy - BOX / 2 - 3, width: BOX + 6, height: BOX + 6 }, nameBox(props)];
};

/** A box at an end of the run, with its letter in its shape, and its name beside it. */
export function BoxAt(props: BoxProps) {
  const [cx, cy] = middleOf(props);
  const label = nameBox(props);
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
      <EndSign end={props.end} x={cx} y={cy} size={20} />
      <text
        x={label.x + label.width / 2}
        y={label.y + 17}
        textAnchor="middle"
        fontSize="16"
        fontWeight="600"
        fill="var(--ink)"
        stroke="var(--sheet)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        {props.name}
      </text>
    </g>
  );
}
