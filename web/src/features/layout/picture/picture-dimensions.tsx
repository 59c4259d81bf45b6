import type { PictureDimension } from "@/api/types";
import { LABEL_SIZE, layDimensions } from "@/draw/dimensions";
import type { Box } from "@/draw/labels";
import type { Flat } from "@/draw/projection";
import type { Size } from "@/ui/use-size";

// The pipe is kept clear of by points this far apart, in pixels.
const SAMPLE = 14;

interface DimensionsProps {
  dimensions: PictureDimension[];
  place: (point: number[]) => Flat;
  lines: Flat[][];
  inTheWay: Box[];
  size: Size;
  chosen: number | null;
  onChoose: (step: number) => void;
}

/** The measurements where they were taken, laid so that they hide neither pipe nor each other. */
export function Dimensions({ dimensions, place, lines, inTheWay, size, chosen, onChoose }: DimensionsProps) {
  const wanted = dimensions.map((one) => ({
    from: place(one.start),
    to: place(one.end),
    text: one.reads,
    kept: chosen !== null && stepOf(one) === chosen,
  }));
  const sheet = { x: 6, y: 6, width: size.width - 12, height: size.height - 12 };
  const laid = layDimensions(wanted, lines.flatMap(sampled), inTheWay, sheet);
  return (
    <g>
      {laid.map(({ index, ends, line, label }) => {
        const dimension = dimensions[index];
        const step = dimension ? stepOf(dimension) : null;
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

const stepOf = ({ place }: PictureDimension): number | null =>
  place.startsWith("steps.") ? Number(place.split(".")[1]) : null;

/** Points every few pixels along a polyline, for keeping labels off the pipe. */
function sampled(line: Flat[]): Flat[] {
  return line.flatMap((end, i) => {
    const start = line[i - 1];
    if (!start) return [end];
    const count = Math.ceil(Math.hypot(end[0] - start[0], end[1] - start[1]) / SAMPLE);
    return Array.from({ length: count }, (_, k): Flat => {
      const part = (k + 1) / count;
      return [start[0] + (end[0] - start[0]) * part, start[1] + (end[1] - start[1]) * part];
    });
  });
}
