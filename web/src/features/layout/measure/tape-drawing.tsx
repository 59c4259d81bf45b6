import type { Step } from "@/api/types";
import { kindOf } from "@/trade/kinds";
import { written } from "@/trade/written";

/** Where the tape lies for a field: by what it is measured to, where that is chosen. */
function tapeOf(step: Step, field: string) {
  const { tapes, fields } = kindOf(step.kind);
  if (tapes[field]) return tapes[field];
  const end = ["to", "ref"].find((key) => fields[key]);
  return end ? tapes[`${field}.${written(step, end) ?? fields[end]?.default}`] : undefined;
}

const HOOK = 1.6;

/** The step drawn as pipe, with the tape where it hooks and reads. */
export function TapeDrawing({ step, field }: { step: Step; field: string }) {
  const { profile } = kindOf(step.kind);
  const [x, y, endX, endY] = tapeOf(step, field) ?? [0, 0, 0, 0];
  const long = Math.hypot(endX - x, endY - y);
  return (
    <svg viewBox="-1 -1 36 25" aria-hidden="true" className="h-18 w-26 shrink-0">
      <path d={profile} fill="none" strokeWidth="3" strokeLinejoin="round" className="stroke-soft" />
      {long > 0 && (
        <g
          transform={`translate(${x} ${y}) rotate(${(Math.atan2(endY - y, endX - x) * 180) / Math.PI})`}
          className="fill-accent stroke-accent"
        >
          <path
            d={`M0 ${-HOOK}V${HOOK}M0 0H${long}M${long} ${-HOOK}V${HOOK}`}
            fill="none"
            strokeWidth="0.9"
          />
          <path d={`M${long} 0l${-Math.min(2, long)} -1v2z`} stroke="none" />
        </g>
      )}
    </svg>
  );
}
