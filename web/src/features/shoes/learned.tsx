import { useLearned, useTakeLearned } from "@/api/shoe-queries";
import type { FittedFigure, Learned, Shoe } from "@/api/types";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/shoes";

/** What the bends in the log show of a shoe, with their spread and drift, and figures to take from there. */
export function LearnedFigures({ shoe, mayWrite }: { shoe: Shoe; mayWrite: boolean }) {
  const learned = useLearned(shoe.id).data;
  const take = useTakeLearned(shoe.id);
  if (!learned) return null;
  const propose = {
    deduct: learned.deduct.proposed !== null && learned.deduct.proposed !== undefined,
    gain: learned.gain.proposed !== null && learned.gain.proposed !== undefined,
    dial: learned.dial?.proposed ?? false,
  };
  const proposed = Object.values(propose).some(Boolean);
  return (
    <section aria-label={t("learned.title", { shoe: shoe.name })} className="border-t border-line/60 pt-2">
      <h3 className="font-bold">{t("learned.short")}</h3>
      <div className="mt-1 grid gap-x-6 gap-y-2 sm:grid-cols-3">
        <Figure name={t("found.deduct")} figure={learned.deduct} />
        <Figure name={t("form.gain")} figure={learned.gain} />
        <DialLine dial={learned.dial} />
      </div>
      {proposed && (
        <div className="mt-2 flex flex-wrap items-center gap-3">
          <Notice severity="caution">{t("learned.suggests", { listed: listed(propose) })}</Notice>
          {mayWrite && (
            <Button look="main" disabled={take.isPending} onClick={() => take.mutate(propose)}>
              {t("learned.use")}
            </Button>
          )}
        </div>
      )}
      {take.error && <Notice severity="stop">{take.error.message}</Notice>}
    </section>
  );
}

function listed(propose: Record<string, boolean>): string {
  const names = Object.entries(propose).flatMap(([name, wanted]) => (wanted ? [name] : []));
  return new Intl.ListFormat("en", { type: "conjunction" }).format(names);
}

const DIGITS = 3;
const WIDE = 170;
const TALL = 56;
const INSET = 8;
const LEAST_RANGE = 1 / 8;

function Figure({ name, figure }: { name: string; figure: FittedFigure }) {
  return (
    <div className="tape text-[15px]">
      <p>{figure.says}</p>
      {figure.bends > 0 && (
        <>
          <Seen name={name} figure={figure} />
          <p className="text-soft">
            {t("learned.spread", { spread: figure.spread.toFixed(DIGITS) })}
            {figure.drift !== null &&
              figure.drift !== undefined &&
              t("learned.drift", {
                sign: figure.drift < 0 ? "−" : "+",
                drift: Math.abs(figure.drift).toFixed(DIGITS),
              })}
          </p>
        </>
      )}
    </div>
  );
}

/** Each bend's showing over time, against the figure in use. */
function Seen({ name, figure }: { name: string; figure: FittedFigure }) {
  const days = figure.seen.map((one) => one.day);
  const values = [figure.in_use, ...figure.seen.map((one) => one.value)];
  const middle = (Math.min(...values) + Math.max(...values)) / 2;
  const range = Math.max(LEAST_RANGE, Math.max(...values) - Math.min(...values));
  const span = Math.max(1, Math.max(...days) - Math.min(...days));
  const x = (day: number) => INSET + ((day - Math.min(...days)) / span) * (WIDE - 2 * INSET);
  const y = (value: number) => TALL / 2 - ((value - middle) / range) * (TALL - 2 * INSET);
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${TALL}`}
      width={WIDE}
      height={TALL}
      role="img"
      aria-label={t("learned.over_time", { name, bends: figure.bends })}
    >
      <line
        x1="0"
        x2={WIDE}
        y1={y(figure.in_use)}
        y2={y(figure.in_use)}
        stroke="var(--ink)"
        strokeWidth="1.5"
      />
      {figure.mean !== null && figure.mean !== undefined && (
        <line
          x1="0"
          x2={WIDE}
          y1={y(figure.mean)}
          y2={y(figure.mean)}
          stroke="var(--accent)"
          strokeWidth="2"
          strokeDasharray="5 4"
        />
      )}
      {figure.seen.map((one) => (
        <circle
          key={`${one.day}-${one.value}`}
          cx={x(one.day)}
          cy={y(one.value)}
          r="4"
          fill="var(--accent)"
        />
      ))}
    </svg>
  );
}

function DialLine({ dial }: { dial: Learned["dial"] }) {
  if (!dial) return <p className="text-[15px]">{t("learned.no_dial")}</p>;
  return (
    <div className="tape text-[15px]">
      <p>{dial.says}</p>
      <p className="mt-1 text-soft">{t("learned.dial_spread", { spread: dial.spread.toFixed(2) })}</p>
    </div>
  );
}
