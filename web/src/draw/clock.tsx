import { t } from "@/words/ui";

interface Props {
  /** Where the bend made before points, in degrees clockwise from straight up, seen from end A; null: none was. */
  points: number | null;
  previous: number;
  /** In the air the new bend goes down. */
  down: boolean;
  size: number;
}

const MIDDLE = 60;

function onRim(degrees: number, radius: number): [number, number] {
  const angle = (degrees * Math.PI) / 180;
  return [MIDDLE + radius * Math.sin(angle), MIDDLE - radius * Math.cos(angle)];
}

/** The pipe seen from end A like a clock: where the new bend goes, and where the bend before must point. */
export function RollClock({ points, previous, down, size }: Props) {
  const pointer = points === null ? null : onRim(points, 40);
  return (
    <svg
      viewBox="0 0 120 120"
      width={size}
      height={size}
      className="shrink-0"
      role="img"
      aria-label={t(down ? "clock.down" : "clock.up")}
    >
      <circle cx={MIDDLE} cy={MIDDLE} r="56" fill="var(--paper)" stroke="var(--line)" strokeWidth="2" />
      {Array.from({ length: 12 }, (_, hour) => {
        const [x1, y1] = onRim(hour * 30, 55);
        const [x2, y2] = onRim(hour * 30, hour % 3 ? 50 : 46);
        // biome-ignore lint/suspicious/noArrayIndexKey: the hours of a clock never change
        return <line key={hour} x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--soft)" strokeWidth="2" />;
      })}
      {pointer && (
        <g>
          <line
            x1={MIDDLE}
            y1={MIDDLE}
            x2={pointer[0]}
            y2={pointer[1]}
            stroke="var(--pipe-edge)"
            strokeWidth="13"
            strokeLinecap="round"
          />
          <line
            x1={MIDDLE}
            y1={MIDDLE}
            x2={pointer[0]}
            y2={pointer[1]}
            stroke="var(--pipe)"
            strokeWidth="9"
            strokeLinecap="round"
          />
        </g>
      )}
      <circle cx={MIDDLE} cy={MIDDLE} r="13" fill="var(--pipe)" stroke="var(--pipe-edge)" strokeWidth="3" />
      <path
        d={`M${MIDDLE} 46V14M${MIDDLE - 7} 22L${MIDDLE} 12L${MIDDLE + 7} 22`}
        transform={down ? `rotate(180 ${MIDDLE} ${MIDDLE})` : undefined}
        fill="none"
        stroke="var(--accent)"
        strokeWidth="4.5"
      />
      {pointer && (
        <g>
          <rect x={pointer[0] - 12} y={pointer[1] - 10} width="24" height="20" rx="10" fill="var(--ink)" />
          <text
            x={pointer[0]}
            y={pointer[1] + 5}
            textAnchor="middle"
            fontSize="16"
            fontWeight="700"
            fill="var(--paper)"
          >
            {previous}
          </text>
        </g>
      )}
    </svg>
  );
}
