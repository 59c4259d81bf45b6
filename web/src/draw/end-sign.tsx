/** End A is a square, end B a circle: the sign inside a drawing, its middle at x, y. */
export function EndSign({ end, x, y, size = 22 }: { end: "A" | "B"; x: number; y: number; size?: number }) {
  return (
    <g>
      {end === "A" ? (
        <rect x={x - size / 2} y={y - size / 2} width={size} height={size} fill="var(--ink)" />
      ) : (
        <circle cx={x} cy={y} r={size / 2 + 1} fill="var(--ink)" />
      )}
      <text x={x} y={y + 5.5} textAnchor="middle" fontSize="15" fontWeight="700" fill="var(--paper)">
        {end}
      </text>
    </g>
  );
}
