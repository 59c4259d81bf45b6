import { EndSign } from "./end-sign";

/** A bend out of its plane, seen along the pipe from end A: where its leg was to point, and which way it leans. */
export function DogLegDrawing({ way }: { way: 1 | -1 }) {
  return (
    <svg viewBox="0 0 100 84" className="h-20 shrink-0" aria-hidden="true">
      <line x1="50" y1="60" x2="50" y2="6" stroke="var(--soft)" strokeWidth="2" strokeDasharray="4 4" />
      <g transform={`rotate(${way * 22} 50 60)`}>
        <line
          x1="50"
          y1="60"
          x2="50"
          y2="8"
          stroke="var(--pipe-edge)"
          strokeWidth="13"
          strokeLinecap="round"
        />
        <line x1="50" y1="60" x2="50" y2="8" stroke="var(--pipe)" strokeWidth="9" strokeLinecap="round" />
      </g>
      <g transform={`translate(50 0) scale(${way} 1)`} fill="none" stroke="var(--accent)" strokeWidth="3">
        <path d="M2 18A42 42 0 0 1 30 28" />
        <path d="M31 19L31 29L21 28" />
      </g>
      <circle cx="50" cy="60" r="13" fill="var(--pipe)" stroke="var(--pipe-edge)" strokeWidth="3" />
      <EndSign end="A" x={50} y={60} size={14} />
    </svg>
  );
}
