import type { Begun, Status } from "@/api/types";
import { t } from "@/words/ui";

const WORDS: Record<Status, string> = {
  measured: t("state.measured"),
  "laid out": t("state.laid_out"),
  cut: t("state.cut"),
  bent: t("state.bent"),
  fitted: t("state.fitted"),
};
const inWords = ({ what, done, of }: Begun): string =>
  what === "cut"
    ? t("begun.cut", { done, of })
    : what === "bends"
      ? t("begun.bends", { done, of })
      : t("begun.fitted", { done, of });
const STAGES = Object.keys(WORDS) as Status[];
const STEP = 16;

/** How far the work on a run is: a pipe filled up to its stage, and the word. */
export function StatusMark({ status, begun }: { status: Status; begun: Begun[] }) {
  const reached = STAGES.indexOf(status);
  return (
    <span className="ml-auto flex items-center gap-2.5">
      <svg
        width={STEP * STAGES.length}
        height="14"
        viewBox={`0 0 ${STEP * STAGES.length} 14`}
        aria-hidden="true"
        className="max-sm:hidden"
      >
        {STAGES.map((stage, at) => (
          <rect
            key={stage}
            x={at * STEP + 1}
            y="3"
            width={STEP - 3}
            height="8"
            rx="1.5"
            fill={at <= reached ? "var(--accent)" : "var(--paper)"}
            stroke={at <= reached ? "var(--accent)" : "var(--line)"}
            strokeWidth="1.5"
          />
        ))}
      </svg>
      <span className="w-38 leading-tight">
        <strong className="font-semibold">{WORDS[status]}</strong>
        {begun.length > 0 && (
          <span className="block text-[15px] text-soft">{begun.map(inWords).join(", ")}</span>
        )}
      </span>
    </span>
  );
}
