import { type ReactNode, useState } from "react";
import type { SheetBend } from "@/api/types";
import { RollClock } from "@/draw/clock";
import { InTheShoeDrawing } from "@/draw/in-the-shoe";
import { referenceName } from "@/draw/references";
import { ShoeDrawing } from "@/draw/shoe";
import { StickStrip } from "@/draw/strip";
import { TapeDrawing } from "@/draw/tape-lies";
import { Button } from "@/ui/button";
import { BendTab, EndMark } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { Select } from "@/ui/select";
import { useSize } from "@/ui/use-size";
import { t } from "@/words/bench";
import { AsBent } from "./as-bent";
import { tapeAt, useBenchContext } from "./bench-context";
import { CorrectionTold } from "./correction";
import { Screens } from "./screens";
import { asPiece } from "./sheet-piece";
import { ShoeLine } from "./shoe-line";
import { ordinal } from "./stick-rail";
import { judgedOf, shotsOf } from "./stick-steps";

const HOOKS = [
  { value: "A" as const, label: t("mark.hook_a") },
  { value: "B" as const, label: t("mark.hook_b") },
];
const TOOLS: Record<string, string> = { tape: t("must_read.tape"), level: t("must_read.level") };
const WHEN = [
  { value: "start" as const, label: t("bend.start") },
  { value: "end" as const, label: t("bend.end") },
];

/** One bend: its mark as large as the screen gives, how pipe and shoe are set, what must then read, what was read. */
export function BendScreen({ bend }: { bend: SheetBend }) {
  const bench = useBenchContext();
  const { stick, markOf, go } = bench;
  const { sheet } = stick;
  const [ref, size] = useSize<HTMLDivElement>();
  // What to do stands where the reading was entered; on the other screens it comes first.
  const isLast = stick.made.at(-1)?.bend === bend.number;
  return (
    <section aria-label={t("bend.title", { bend: bend.number })} className="flex flex-1 flex-col">
      <div ref={ref} className="max-sm:hidden">
        {size.width > 0 && (
          <StickStrip
            piece={asPiece(sheet)}
            width={size.width}
            longest={sheet.cut.inches}
            chosenBends={[bend.number]}
            onChoose={go}
            markFor={(shown) => {
              const one = sheet.bends.find((other) => other.number === shown.number);
              return one ? markOf(one) : shown.use;
            }}
          />
        )}
      </div>
      {!isLast && <CorrectionTold />}
      <div className="mt-1 grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_25rem]">
        <div className="flex flex-col gap-3">
          {bend.sweep && <SweepShots bend={bend} sweep={bend.sweep} />}
          <Mark bend={bend} />
          <Handling bend={bend} />
          {bend.breaks && <Notice severity="stop">{t("order.impossible", { breaks: bend.breaks })}</Notice>}
          {bend.cautions.map((caution) => (
            <Notice key={caution} severity="caution">
              {caution}
            </Notice>
          ))}
        </div>
        <Drawings bend={bend} wide={size.width >= 600} />
      </div>
      <div className="mt-3 grid gap-x-8 gap-y-4 border-t border-line pt-2 lg:grid-cols-[minmax(0,1fr)_25rem]">
        <ThenReads bend={bend} />
        <AsBent bend={bend} />
      </div>
      {isLast && <CorrectionTold />}
      <details className="mt-3 text-[15px]">
        <summary className="flex min-h-12 cursor-pointer items-center font-semibold text-soft">
          {t("mark.why")}
        </summary>
        <p className="tape">{bend.use_because}</p>
        {bend.why.map((line) => (
          <p key={line} className="tape">
            {line}
          </p>
        ))}
        <Habits bend={bend} />
        <ShoeLine />
      </details>
      <div className="mt-3 empty:hidden">{stick.shoe.cautions.length > 0 && <UncalibratedLine />}</div>
      <Screens />
    </section>
  );
}

/** Where a sweep stands: each shot to be looked at again, and what the finder over all of it must then show. */
function SweepShots({ bend, sweep }: { bend: SheetBend; sweep: NonNullable<SheetBend["sweep"]> }) {
  const { stick, go, waiting } = useBenchContext();
  const isLast = sweep.shot === sweep.of;
  return (
    <section aria-label={t("sweep.title")} className="rounded-lg border border-line bg-paper px-3 py-2">
      <p className="tape flex flex-wrap items-baseline gap-x-3 text-xl">
        <strong>{t("sweep.shot_of", { shot: sweep.shot, of: sweep.of })}</strong>
        <span className="text-base text-soft">
          {t("sweep.must_show")} <strong className="text-xl text-ink">{sweep.then_reads}</strong>
          {!isLast && t("sweep.at_end", { whole_reads: sweep.whole_reads })}
        </span>
      </p>
      <div className="mt-1 flex flex-wrap gap-1">
        {shotsOf(stick, bend).map((shot) => {
          const judged = judgedOf(shot, waiting.get(shot.number));
          const look = judged ? (judged.within ? "bg-good/20" : "bg-stop/20") : "bg-paper";
          return (
            <button
              key={shot.number}
              type="button"
              aria-label={t(judged ? "sweep.made" : "sweep.shot", { shot: shot.sweep?.shot ?? 0 })}
              aria-current={shot.number === bend.number ? "step" : undefined}
              onClick={() => go(shot.number)}
              className={`tape min-h-11 min-w-11 rounded-md border font-semibold ${look} ${shot.number === bend.number ? "border-accent border-2" : "border-line"}`}
            >
              {shot.sweep?.shot}
            </button>
          );
        })}
      </div>
      <p className="mt-1 text-base text-soft">
        {t("sweep.level")} {isLast ? t("sweep.last") : t("sweep.sum")}
      </p>
    </section>
  );
}

/** A card whose shoe cannot be trusted says so, whatever else it shows. */
function UncalibratedLine() {
  const { stick } = useBenchContext();
  return stick.shoe.cautions.map((caution) => (
    <Notice key={caution} severity="caution">
      {caution}
    </Notice>
  ));
}

function Mark({ bend }: { bend: SheetBend }) {
  const bench = useBenchContext();
  const { stick, markOf, burnt, dialOf, setDial } = bench;
  const mark = markOf(bend);
  const carried = bench.bench.carried.find((one) => one.bend === bend.number);
  const dialed = dialOf(bend) !== undefined;
  const isCard = stick.arranged.marks === "card" && bend.card;
  const acts = new Set(stick.sheet.bends.map((one) => one.act)).size;
  return (
    <div>
      <p className="flex items-center gap-2 text-lg text-soft">
        <BendTab number={bend.number} chosen />
        <span className="tape">
          {t("bend.where", {
            ordinal: ordinal(bend.act),
            acts,
            piece: stick.sheet.piece,
            of_pieces: stick.sheet.of_pieces,
          })}
        </span>
      </p>
      <p
        className="tape text-[clamp(5rem,10vw,7.5rem)] leading-none font-extrabold tracking-tight whitespace-nowrap"
        data-testid="mark"
      >
        {tapeAt(bench, bend)}
      </p>
      <p className="mt-1 flex flex-wrap items-center gap-x-2 text-xl">
        {t("mark.from_end")} <EndMark end="A" size={26} />
        {burnt && <span className="text-base text-soft">{t("mark.burnt")}</span>}
        {isCard && <span className="text-base font-semibold text-caution">{t("mark.by_card")}</span>}
        {bend.replanned && (
          <span className="tape text-base">
            {t("mark.was")} <s>{bend.planned.at.reads}</s>, <s>{bend.planned_angle_reads}</s>
          </span>
        )}
      </p>
      {!mark.on_pipe && <Notice severity="caution">{t("mark.off_pipe")}</Notice>}
      <div className="mt-3 flex flex-wrap gap-x-8 gap-y-2">
        <Big name={t("marks.on_the")} value={referenceName(mark.reference)} />
        <Big name={t("marks.hook")} value={<EndMark end={mark.hook} size={40} />} />
        <Big name={t("marks.bend_to")} value={bend.angle_reads} />
        {(dialed || bend.dial_reads !== bend.angle_reads) && (
          <Big name={t("marks.dial")} value={dialed ? carried?.dial_reads : bend.dial_reads} />
        )}
      </div>
      {bend.found_by && <p className="mt-1 text-base text-soft">{bend.found_by}</p>}
      {carried && !bend.made && (
        <Notice severity="note">
          {t("bend.beside", { pipe: carried.pipe, off_reads: carried.off_reads })}{" "}
          <Button aria-pressed={dialed} onClick={() => setDial(bend.number, dialed ? null : carried.dial)}>
            {dialed
              ? t("dial.as_planned", { dial_reads: bend.dial_reads })
              : t("dial.set_to", { dial_reads: carried.dial_reads })}
          </Button>
        </Notice>
      )}
    </div>
  );
}

function Big({ name, value }: { name: string; value: ReactNode }) {
  return (
    <div>
      <p className="text-base text-soft">{name}</p>
      <p className="tape min-h-12 text-4xl leading-12 font-bold">{value}</p>
    </div>
  );
}

const wayOf = (where: SheetBend["where"]) =>
  ({
    floor: t("handle.floor"),
    edge: t("handle.edge"),
    air: t("handle.air"),
    machine: t("card.machine"),
  })[where];

/** How the pipe is taken for this bend: end for end, rolled, on the floor or in the air; and why now. */
function Handling({ bend }: { bend: SheetBend }) {
  const air = bend.where === "air";
  return (
    <div className="flex items-center gap-4">
      <RollClock points={bend.previous_points} previous={bend.previous ?? 0} down={air} size={112} />
      <div className="text-lg leading-snug">
        {bend.end_for_end && <p className="font-semibold">{t("handle.flip")}</p>}
        <p className="tape">{bend.turn_says}</p>
        <p className="font-semibold">{wayOf(bend.where)}</p>
        {bend.reasons.length > 0 && <p className="mt-0.5 text-base text-soft">{bend.reasons.join(" ")}</p>}
        {bend.against.length > 0 && (
          <p className="mt-0.5 text-base text-caution">
            {t("order.unusual", { against: bend.against.join(" ") })}
          </p>
        )}
      </div>
    </div>
  );
}

const NARROW = 330;
const WIDE = 398;

function Drawings({ bend, wide }: { bend: SheetBend; wide: boolean }) {
  const { stick, markOf, setReference, arrange, mayWrite } = useBenchContext();
  const [when, setWhen] = useState<"start" | "end">("start");
  const mark = markOf(bend);
  const width = wide ? WIDE : NARROW;
  const references = Object.keys(stick.used.references);
  const turnHook = (hook: "A" | "B") =>
    arrange({
      order: stick.sheet.bends
        .filter((one) => one.begins_act)
        .map((one) => ({ bend: one.number, hook: one.act === bend.act ? hook : one.use.hook })),
    });
  return (
    <div className="flex flex-col gap-2">
      <div className="rounded-lg border border-line bg-paper">
        <div className="flex justify-center border-b border-line/60 pt-1">
          <ShoeDrawing
            shoe={stick.used}
            mark={mark}
            angle={bend.angle}
            dial={bend.dial_reads}
            width={width}
          />
        </div>
        <div className="flex justify-center">
          <InTheShoeDrawing
            drawn={bend.in_the_shoe}
            shoe={stick.used}
            hook={bend.use.hook}
            where={bend.where}
            angle={bend.angle}
            dial={bend.dial_reads}
            at={when}
            width={width}
            tall={210}
          />
        </div>
        <Segments label={t("must_read.when")} value={when} choices={WHEN} onChoose={setWhen} large />
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <span className="flex min-h-12 items-center gap-1.5">
          {t("mark.set_on")}{" "}
          <Select
            boxed
            label={t("mark.reference")}
            value={mark.reference}
            choices={references.map((value) => ({ value, label: referenceName(value) }))}
            onChoose={(reference) => setReference(bend.number, reference)}
          />
        </span>
        {mayWrite && (
          <Segments large label={t("mark.hook")} value={bend.use.hook} choices={HOOKS} onChoose={turnHook} />
        )}
      </div>
    </div>
  );
}

function ThenReads({ bend }: { bend: SheetBend }) {
  return (
    <section aria-label={t("must_read.title")}>
      <h2 className="text-lg font-bold">{t("must_read.title")}</h2>
      <ul className="mt-1">
        {bend.checks.map((check) => (
          <li
            key={check.says}
            className={`flex gap-3 border-b border-line/60 py-1.5 ${check.lies ? "items-center max-sm:flex-wrap max-sm:gap-y-0" : "items-baseline"}`}
          >
            {check.lies ? (
              <TapeDrawing lies={check.lies} angle={bend.angle} />
            ) : (
              <span className="w-14 shrink-0 text-soft sm:w-[150px]">{TOOLS[check.tool] ?? check.tool}</span>
            )}
            <span
              className={`text-lg leading-tight ${check.lies ? "max-sm:order-last max-sm:basis-full" : ""}`}
            >
              {check.says}
            </span>
            <strong className="tape ml-auto text-2xl whitespace-nowrap">{check.reads}</strong>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A stub by other habits: the deduct burnt off, no mark at all, the front edge. */
function Habits({ bend }: { bend: SheetBend }) {
  const { stub } = bend;
  if (!stub) return null;
  return (
    <ul className="tape my-2 list-disc pl-5">
      <li>
        {t("mark.deduct_burnt", {
          burnt_deduct: stub.burnt_deduct.reads,
          burnt_mark: stub.burnt_mark.reads,
        })}
      </li>
      <li>{t("mark.slide", { slide_to: stub.slide_to.reads })}</li>
      {stub.front_edge && <li>{t("mark.front_edge", { front_edge: stub.front_edge.reads })}</li>}
    </ul>
  );
}
