import { useWays } from "@/api/draft-queries";
import type { CardAnswer, Measure, Plan, Way } from "@/api/types";
import { RackWays } from "@/features/layout/rack/rack-ways";
import { useFocus, usePlanned, useWork } from "@/features/layout/run-context";
import { GLOSSARY } from "@/trade/glossary";
import { kindWithin } from "@/trade/kinds";
import { Button } from "@/ui/button";
import { BendTab, StopIcon } from "@/ui/icons";
import { Pattern } from "@/ui/pattern";
import { Term } from "@/ui/term";
import { t } from "@/words/layout";
import { applyEdits } from "./apply-edits";

/** For the chosen step: every other way to do it, the exact figures against the card's, and how touchy it is. */
export function StepPanel() {
  const { draft } = useWork();
  const { plan } = usePlanned();
  const { chosen } = useFocus();
  const step = chosen === null ? undefined : draft.document.steps[chosen];
  if (chosen === null || !step || !plan) return <p className="p-3 text-soft">{t("ways.choose")}</p>;
  return (
    <div className="flex flex-col">
      <h3 className="flex flex-wrap items-center gap-1.5 px-3 pt-2 text-lg font-bold">
        {t("ways.step", { chosen: chosen + 1, kind: kindWithin(step.kind) })}
        {plan.bends
          .filter((bend) => bend.step === chosen)
          .slice(0, 6)
          .map((bend) => (
            <BendTab key={bend.number} number={bend.number} chosen />
          ))}
      </h3>
      <Ways index={chosen} />
      <RackWays step={step} index={chosen} />
      <Touchiness plan={plan} index={chosen} />
      <CardAndExact plan={plan} index={chosen} />
    </div>
  );
}

function Ways({ index }: { index: number }) {
  const { draft } = useWork();
  const ways = useWays(draft.document, index).data ?? [];
  if (ways.length < 2) return null;
  const possible = ways.filter((way) => !way.why_not || way.now);
  const others = ways.filter((way) => way.why_not && !way.now);
  return (
    <>
      <ul aria-label={t("ways.list")} className="mt-1 flex flex-col">
        {possible.map((way) => (
          <WayRow key={way.name} way={way} index={index} />
        ))}
      </ul>
      {others.length > 0 && (
        <details className="border-b border-line/60">
          <summary className="cursor-pointer px-3 py-2 font-semibold">
            {t("ways.others", { others: others.length })}
          </summary>
          <ul aria-label={t("ways.impossible")}>
            {others.map((way) => (
              <WayRow key={way.name} way={way} index={index} />
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

function WayRow({ way, index }: { way: Way; index: number }) {
  const { draft, edit, mayWrite } = useWork();
  const { document } = draft;
  const take = () => {
    const edits = [{ op: "set" as const, place: `steps.${index}`, value: way.step }, ...way.then];
    edit(applyEdits(document, edits), "");
  };
  return (
    <li
      aria-current={way.now ? "true" : undefined}
      className={`flex items-center gap-2 border-t border-line/60 px-3 py-1.5 ${way.now ? "border-l-4 border-l-accent bg-tint/50 pl-2" : ""}`}
    >
      <div className="min-w-0 flex-1">
        <p className="tape font-semibold">
          {way.name}
          {way.gentlest && (
            <span className="ml-1.5 text-[15px] font-normal text-soft">{t("ways.gentlest")}</span>
          )}
        </p>
        <Figures way={way} />
        {way.why_not && (
          <p className="mt-0.5 flex gap-1 text-[15px] leading-snug text-soft">
            <StopIcon width={17} height={17} className="mt-0.5 shrink-0 text-stop" />
            <span className="tape">{way.why_not}</span>
          </p>
        )}
      </div>
      {way.now && <span className="text-[15px] font-semibold">{t("ways.now")}</span>}
      {!way.now && !way.why_not && mayWrite && (
        <Button aria-label={t("ways.use_named", { way: way.name })} onClick={take}>
          {t("ways.use")}
        </Button>
      )}
    </li>
  );
}

function Figures({ way }: { way: Way }) {
  const figures: [keyof typeof GLOSSARY, Measure | null][] = [
    ["spacing", way.spacing],
    ["shrink", way.shrink],
    ["room", way.room],
    ["clearance", way.why_not ? null : way.clearance],
  ];
  return (
    <p className="tape flex flex-wrap gap-x-3 text-[15px] text-soft">
      {figures.map(
        ([word, figure]) =>
          figure && (
            <span key={word}>
              <Term meaning={GLOSSARY[word]}>{word}</Term>{" "}
              <strong className="text-ink">{figure.reads}</strong>
            </span>
          ),
      )}
      {way.degrees > 0 && (
        <span>
          <strong className="text-ink">{Math.round(way.degrees * 10) / 10}°</strong> {t("ways.in_all")}
        </span>
      )}
    </p>
  );
}

function Touchiness({ plan, index }: { plan: Plan; index: number }) {
  const bends = plan.bends.filter((bend) => bend.step === index);
  const exact = plan.simulated.find((pipe) => pipe.marks === "exact");
  const passed = exact?.passed.filter((one) => one.place.startsWith(`steps.${index}.`)) ?? [];
  const moved = bends.flatMap((bend) => {
    const measure = plan.by_hand?.per_degree[bend.number - 1];
    return measure ? [{ number: bend.number, measure }] : [];
  });
  if (!passed.length && !moved.length) return null;
  const shown = moved.length > 4 ? moved.slice(0, 1) : moved;
  return (
    <section className="border-b border-line/60 px-3 py-2">
      {passed.map((one) => (
        <p key={one.place}>
          <Pattern
            sentence={t("over.clears")}
            slots={{
              name: one.name || t("over.unnamed"),
              clears: <strong className="tape">{one.clearance.reads}</strong>,
              wanted: <span className="tape">{one.wanted.reads}</span>,
            }}
          />
        </p>
      ))}
      {moved.length > 0 && (
        <p>
          {t("sensitive.one_degree")}{" "}
          {shown.map((one) => (
            <span key={one.number} className="mr-2 inline-flex items-center gap-1 whitespace-nowrap">
              <BendTab number={one.number} /> <strong className="tape">{one.measure.reads}</strong>
            </span>
          ))}
          {bends.some((bend) => bend.number === plan.by_hand?.most_sensitive_bend) &&
            t("sensitive.most", { bend: plan.by_hand?.most_sensitive_bend ?? 0 })}
        </p>
      )}
    </section>
  );
}

function CardAndExact({ plan, index }: { plan: Plan; index: number }) {
  const exact = plan.exact.find((one) => one.step === index);
  const card = plan.card.find((one) => one.step === index);
  const bends = plan.pieces
    .flatMap((piece) => piece.bends)
    .filter((bend) => plan.bends[bend.number - 1]?.step === index)
    .slice(0, 6);
  const byCard = plan.simulated.find((pipe) => pipe.marks === "card");
  return (
    <>
      {exact && (
        <section className="border-b border-line/60 px-3 py-2">
          <h4 className="font-bold">{t("arithmetic.exact")}</h4>
          <Spacing spacing={exact.spacing} shrink={exact.shrink} />
          <Lines lines={exact.lines} />
          <Why says={t("arithmetic.why_shoe")} lines={plan.shoe?.why ?? []} />
          {bends.map((bend) => (
            <Why
              key={bend.number}
              says={t("arithmetic.why_mark", {
                bend: bend.number,
                use: bend.use.at.reads,
                reference: bend.use.reference,
              })}
              lines={bend.why}
            />
          ))}
        </section>
      )}
      {card && card.lines.length > 0 && (
        <section className="px-3 py-2">
          <h4 className="font-bold">{t("card.title")}</h4>
          <Spacing spacing={card.spacing} shrink={card.shrink} />
          <Lines lines={card.lines} />
          <CardMarks way={card} bends={bendsOf(plan, index)} />
          {card.others.map((way) => (
            <details key={way.name}>
              <summary className="cursor-pointer py-1.5 font-semibold">
                {t("card.or", { way: way.name })}
                {way.costs && (
                  <span className="tape font-normal text-soft">
                    {t("card.up_to", { costs: way.costs.reads })}
                  </span>
                )}
              </summary>
              <Lines lines={way.lines} />
              <CardMarks way={way} bends={bendsOf(plan, index)} />
            </details>
          ))}
          {byCard && (
            <p className="mt-1.5">
              <Pattern
                sentence={t("card.whole_run")}
                slots={{ misses: <strong className="tape">{byCard.miss_reads}</strong> }}
              />
            </p>
          )}
          {plan.card_cut && <CardCut cut={plan.card_cut} />}
        </section>
      )}
    </>
  );
}

function CardCut({ cut }: { cut: NonNullable<Plan["card_cut"]> }) {
  return (
    <div className="mt-1.5">
      <Lines lines={cut.lines} />
      <p className="text-[15px] text-soft">
        <Pattern
          sentence={t("card.pipe")}
          slots={{ takes: <strong className="tape text-ink">{cut.exact.reads}</strong> }}
        />
      </p>
    </div>
  );
}

const bendsOf = (plan: Plan, index: number): number[] =>
  plan.bends.filter((bend) => bend.step === index).map((bend) => bend.number);

const MOST_ROWS = 6;

/** The marks of one of the card’s ways, and where this shoe wants them. */
function CardMarks({ way, bends }: { way: Pick<CardAnswer, "name" | "marks" | "costs">; bends: number[] }) {
  if (bends.length !== way.marks.length || bends.length > MOST_ROWS) return null;
  return (
    <>
      <table aria-label={t("card.table", { way: way.name })} className="tape mt-2 w-full text-left">
        <thead>
          <tr className="text-[15px] text-soft">
            <th scope="col">{t("card.bend")}</th>
            <th scope="col">{t("card.mark")}</th>
            <th scope="col">{t("card.card")}</th>
            <th scope="col">{t("card.exact")}</th>
          </tr>
        </thead>
        <tbody>
          {way.marks.map((mark, at) => (
            <tr key={bends[at]} className="border-t border-line/60">
              <td>{bends[at]}</td>
              <td className="text-[15px]">
                {t("card.hook", { reference: mark.reference, hook: mark.hook })}
              </td>
              <td className="font-semibold">{mark.at.reads}</td>
              <td className="font-semibold">{mark.exact?.reads ?? "–"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {way.costs && (
        <p className="text-[15px] text-soft">
          <Pattern
            sentence={t("card.worst")}
            slots={{ off: <strong className="tape text-ink">{way.costs.reads}</strong> }}
          />
        </p>
      )}
    </>
  );
}

function Spacing({ spacing, shrink }: { spacing: Measure | null; shrink: Measure | null }) {
  if (!spacing && !shrink) return null;
  return (
    <p className="tape">
      {spacing && (
        <Pattern sentence={t("card.spacing")} slots={{ length: <strong>{spacing.reads}</strong> }} />
      )}
      {spacing && shrink && ", "}
      {shrink && <Pattern sentence={t("card.shrink")} slots={{ length: <strong>{shrink.reads}</strong> }} />}
    </p>
  );
}

function Why({ says, lines }: { says: string; lines: string[] }) {
  return (
    <details>
      <summary className="tape cursor-pointer py-1.5 font-semibold">{says}</summary>
      <Lines lines={lines} />
    </details>
  );
}

function Lines({ lines }: { lines: string[] }) {
  return (
    <ol className="tape mt-1 list-decimal pl-5 text-[15px] leading-snug text-soft [&>li]:mt-1">
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ol>
  );
}
