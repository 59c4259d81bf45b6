/** A bend's number along the pipe, in its tab, inside a drawing: its middle at x, y. */
export function NumberTab({
  number,
  x,
  y,
  chosen,
}: {
  number: number;
  x: number;
  y: number;
  chosen: boolean;
}) {
  return (
    <>
      <rect
        x={x - 14}
        y={y - 11}
        width="28"
        height="22"
        rx="11"
        fill={chosen ? "var(--accent)" : "var(--ink)"}
      />
      <text
        x={x}
        y={y + 5.5}
        textAnchor="middle"
        fontSize="15"
        fontWeight="700"
        fill={chosen ? "var(--on-accent)" : "var(--paper)"}
      >
        {number}
      </text>
    </>
  );
}
