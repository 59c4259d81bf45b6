import { useState } from "react";
import { Link } from "react-router";
import type { Floor, FloorStage, FloorStick } from "@/api/types";
import { StatusMark } from "@/draw/status-mark";
import { CheckBox } from "@/ui/check-box";
import { t } from "@/words/racks";

interface Props {
  stick: FloorStick;
  runs: Floor["runs"];
}

/** What is bent on all sticks in turn: one setting of one shoe after another; and how far each pipe has come. */
export function Stages({ stick, runs }: Props) {
  const [withCard, setWithCard] = useState(false);
  return (
    <div className="grid gap-x-6 border-t border-line px-4 py-3 lg:grid-cols-[1fr_17rem] print:block">
      <div>
        <div className="flex flex-wrap items-center gap-x-4">
          <h3 className="font-bold">{t("stages.title")}</h3>
          <CheckBox className="print:hidden" checked={withCard} onCheck={setWithCard}>
            {t("stages.with_card")}
          </CheckBox>
        </div>
        <ol aria-label={t("stages.label")} className="mt-1 flex flex-col">
          {stick.stages.map((stage, at) => (
            <Stage
              // A stage is what stands at its place.
              // biome-ignore lint/suspicious/noArrayIndexKey: see above
              key={at}
              stage={stage}
              number={at + 1}
              withCard={withCard}
            />
          ))}
        </ol>
        {withCard && <ByCardAlone stick={stick} />}
      </div>
      <div className="print:hidden">
        <h3 className="font-bold">{t("stages.bench_cards")}</h3>
        <ul className="mt-1">
          {runs
            .filter((run) => stick.pipes.some((pipe) => pipe.number === run.number))
            .map((run) => (
              <li key={run.id} className="border-b border-line/60">
                <Link
                  to={`/runs/${run.id}/bench/${stick.number}`}
                  className="flex min-h-11 flex-wrap items-center gap-x-3 hover:bg-tint/50"
                >
                  <strong>
                    {run.number} {run.name}
                  </strong>
                  <StatusMark status={run.status} begun={run.begun} />
                </Link>
              </li>
            ))}
        </ul>
      </div>
    </div>
  );
}

/** How far a kick is to lift, by tape. */
function Lifts({ item }: { item: FloorStage["items"][number] }) {
  if (!item.lifts) return null;
  return (
    <>
      {t("stage.lifts")} <strong>{item.lifts.reads}</strong>
    </>
  );
}

const PLURAL: Record<string, string> = { "90": "90s", kick: t("stage.kicks"), sweep: "sweeps" };

/** Where the card would mark it, and how far that is off on this shoe. */
function ByCard({ item }: { item: FloorStage["items"][number] }) {
  const { card } = item;
  return (
    <span className="text-[15px] text-soft">
      {card
        ? t("card.mark", {
            card: card.at.reads,
            reference: card.reference,
            hook: card.hook,
            detail: card.off ? t("card.off", { off: card.off.reads }) : "",
          })
        : t("card.none")}
    </span>
  );
}

/** What the card's marks alone would come to. */
function ByCardAlone({ stick }: { stick: FloorStick }) {
  const known = stick.pipes.filter((pipe) => pipe.card_miss_reads);
  if (!known.length) return null;
  return (
    <p className="mt-2">
      {t("card.ends")}{" "}
      {known.map((pipe, at) => (
        <span key={pipe.number} className="tape">
          {at > 0 && ", "}
          <strong>{pipe.card_miss_reads}</strong> {t("card.pipe", { pipe: pipe.number })}
        </span>
      ))}
      {t("stage.kick_until")}
    </p>
  );
}

interface StageProps {
  stage: FloorStage;
  number: number;
  withCard: boolean;
}

function Stage({ stage, number, withCard }: StageProps) {
  const [first] = stage.items;
  if (!first) return null;
  return (
    <li className="break-inside-avoid border-b border-line/60 py-2">
      <p className="flex flex-wrap items-baseline gap-x-2">
        <span className="tape text-soft">{number}.</span>
        <strong>{stage.items.length > 1 ? (PLURAL[stage.what] ?? stage.what) : stage.what}</strong>
        <span className="text-soft">
          {stage.step !== null && t("stage.of_step", { step: stage.step + 1 })}
          {t("stage.on", { shoe: stage.shoe || t("stage.the_shoe") })}{" "}
          <span className="tape">{stage.trade_size}</span>
          {t("stage.setting", { reference: first.reference, hook: first.hook })}
        </span>
      </p>
      {stage.same && !withCard ? (
        <p className="tape pl-6">
          {stage.items.length > 1
            ? t("stage.all_at", { items: stage.items.map((item) => item.pipe).join(", ") })
            : t("stage.pipe_at", { pipe: first.pipe })}
          <strong>{first.at.reads}</strong>
          {t("stage.dial", { dial_reads: first.dial_reads })}
          <Lifts item={first} />
        </p>
      ) : (
        <ul className="tape flex flex-wrap gap-x-5 gap-y-1 pl-6">
          {stage.items.map((item) => (
            <li key={item.pipe}>
              <span className="text-soft">{t("stage.pipe", { pipe: item.pipe })}</span>{" "}
              <strong>{item.at.reads}</strong>
              {t("stage.dial", { dial_reads: item.dial_reads })}
              <Lifts item={item} />
              {withCard && <ByCard item={item} />}
            </li>
          ))}
        </ul>
      )}
    </li>
  );
}
