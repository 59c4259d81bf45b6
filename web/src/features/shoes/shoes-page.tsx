import { useState } from "react";
import { useShareShoe } from "@/api/company";
import { useMe, useShoes } from "@/api/queries";
import { useChangeShoe, useRemoveShoe } from "@/api/shoe-queries";
import type { Shoe } from "@/api/types";
import { ShoeDrawing } from "@/draw/shoe";
import { Bin, type JustBinned, Undo } from "@/features/bin/bin";
import { NotSent } from "@/shell/not-sent";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { PlusIcon, RemoveIcon } from "@/ui/icons";
import { dayOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { t } from "@/words/shoes";
import { Calibrate } from "./calibrate";
import { LearnedFigures } from "./learned";
import { begun, ShoeForm, sent } from "./shoe-form";

/** The crew's benders: their figures, where these come from, and what the log says of them. */
export function ShoesPage() {
  const shoes = useShoes();
  const me = useMe();
  const mayWrite = me.data?.role !== "viewer";
  const [adding, setAdding] = useState(false);
  const [binned, setBinned] = useState<JustBinned | null>(null);
  return (
    <Shell title={t("page.title")}>
      <main className="mx-auto w-full max-w-6xl px-4 py-6">
        <div className="flex flex-wrap items-center gap-3">
          <h1 className="text-3xl font-bold">{t("page.title")}</h1>
          {mayWrite && (
            <Button className="ml-auto min-h-10" onClick={() => setAdding(!adding)}>
              <PlusIcon /> {t("page.add")}
            </Button>
          )}
        </div>
        {shoes.error && <Notice severity="stop">{shoes.error.message}</Notice>}
        {binned && <Undo key={binned.id} binned={binned} onDone={() => setBinned(null)} />}
        {adding && <ShoeForm onDone={() => setAdding(false)} />}
        <NotSent kind="shoe" />
        <div className="mt-5 flex flex-col gap-6">
          {shoes.data?.map((shoe) => (
            <OneShoe
              key={shoe.id}
              shoe={shoe}
              mayWrite={mayWrite && shoe.crew_id === me.data?.crew_id}
              onBinned={setBinned}
            />
          ))}
          {shoes.data?.length === 0 && <p className="text-lg">{t("page.none")}</p>}
        </div>
        <Bin kinds={["shoe"]} />
      </main>
    </Shell>
  );
}

/** Figures that are unusual for its size, and the exchange that would mend them. */
function Doubtful({ shoe, mayWrite }: { shoe: Shoe; mayWrite: boolean }) {
  const change = useChangeShoe(shoe);
  const exchanged = { ...begun(shoe), deduct: begun(shoe).gain, gain: begun(shoe).deduct };
  return (
    <Notice severity="caution">
      {shoe.doubt}{" "}
      {mayWrite && shoe.exchanged && (
        <Button disabled={change.isPending} onClick={() => change.mutate(sent(exchanged))}>
          {t("form.swap")}
        </Button>
      )}
    </Notice>
  );
}

type Open = "calibrate" | "change" | null;

interface OneShoeProps {
  shoe: Shoe;
  mayWrite: boolean;
  onBinned: (binned: JustBinned) => void;
}

function OneShoe({ shoe, mayWrite, onBinned }: OneShoeProps) {
  const me = useMe().data;
  const mayDelete = me?.role === "lead";
  const share = useShareShoe();
  const [open, setOpen] = useState<Open>(null);
  const remove = useRemoveShoe(() => onBinned({ kind: "shoe", id: shoe.id, name: shoe.name }));
  const toggle = (what: Open) => setOpen(open === what ? null : what);
  return (
    <section aria-labelledby={`shoe-${shoe.id}`} className="rounded-lg border border-line bg-paper">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-4 py-3">
        <h2 id={`shoe-${shoe.id}`} className="text-xl font-bold">
          {shoe.name}
        </h2>
        <span className="tape text-soft">
          {shoe.trade_size} {shoe.material}
          {shoe.machine && t("shoe.machine")}
        </span>
        {shoe.shared && (
          <span className="rounded-sm border border-line px-1.5 text-[15px] text-soft">
            {shoe.crew_id === me?.crew_id ? t("share.shared") : t("share.of_crew", { crew: shoe.crew })}
          </span>
        )}
        {mayWrite && (
          <span className="ml-auto flex flex-wrap gap-2">
            <Button
              look={shoe.calibrated_at ? "plain" : "main"}
              aria-expanded={open === "calibrate"}
              onClick={() => toggle("calibrate")}
            >
              {t("shoe.calibrate")}
            </Button>
            <Button aria-expanded={open === "change"} onClick={() => toggle("change")}>
              {t("shoe.change")}
            </Button>
            {mayDelete && (me.company || shoe.shared) && (
              <Button
                disabled={share.isPending}
                onClick={() => share.mutate({ id: shoe.id, wanted: !shoe.shared })}
              >
                {shoe.shared ? t("share.undo") : t("share.do")}
              </Button>
            )}
            {mayDelete && (
              <Confirm
                trigger={
                  <Button look="quiet" aria-label={t("shoe.delete.label", { shoe: shoe.name })}>
                    <RemoveIcon />
                  </Button>
                }
                title={t("shoe.delete.ask", { shoe: shoe.name })}
                says={t("shoe.delete.says")}
                act={t("shoe.delete")}
                onAct={() => remove.mutate(shoe.id)}
              />
            )}
          </span>
        )}
      </div>
      <div className="grid gap-x-8 gap-y-3 px-4 py-3 lg:grid-cols-[27rem_minmax(0,1fr)]">
        <div>
          <ShoeDrawing shoe={shoe.used} angle={90} width={400} />
          <p className="text-[15px] text-soft">{t("drawing.says")}</p>
        </div>
        <div className="flex flex-col gap-3">
          {shoe.doubt && <Doubtful shoe={shoe} mayWrite={mayWrite} />}
          <Figures shoe={shoe} />
          <LearnedFigures shoe={shoe} mayWrite={mayWrite} />
        </div>
      </div>
      {open === "calibrate" && <Calibrate shoe={shoe} onDone={() => setOpen(null)} />}
      {open === "change" && <ShoeForm shoe={shoe} onDone={() => setOpen(null)} />}
    </section>
  );
}

const DIGITS = 3;

function Figures({ shoe }: { shoe: Shoe }) {
  const { used } = shoe;
  const away = Object.entries(used.references).filter(([name]) => name !== "arrow");
  return (
    <div>
      <dl className="tape flex flex-wrap gap-x-8 gap-y-1">
        <Figure name={t("found.deduct")} value={used.deduct.reads} />
        <Figure name={t("form.gain")} value={used.gain.reads} />
        <Figure name={t("shoe.radius")} value={used.radius.toFixed(DIGITS)} />
        <Figure
          name={t("shoe.dial")}
          value={
            shoe.dial_factor === 1 && shoe.dial_constant === 0
              ? "as it reads"
              : `× ${shoe.dial_factor.toFixed(DIGITS)} ${shoe.dial_constant < 0 ? "−" : "+"} ${Math.abs(shoe.dial_constant).toFixed(1)}°`
          }
        />
      </dl>
      <p className="tape mt-1 text-[15px] text-soft">
        {t("drawing.references", {
          away: away.map(([name, distance]) => `${name} ${distance.toFixed(DIGITS)}`).join(", "),
        })}
      </p>
      <p className="tape mt-1 text-[15px] text-soft">
        {t("drawing.straight", { ahead: used.ahead.reads, behind: used.behind.reads })}
      </p>
      {shoe.calibrated_at ? (
        <p className="mt-1 text-[15px] text-soft">
          {shoe.calibrations.map((one, at) => (
            <span key={one.at} className="tape block">
              {t("history.line", {
                when: at === 0 ? t("history.since") : t("history.before"),
                day: dayOf(one.at),
                deduct: one.deduct.reads,
                gain: one.gain.reads,
                source: one.source === "log" ? t("history.log") : t("history.test_bends"),
                by: one.by,
              })}
            </span>
          ))}
        </p>
      ) : (
        <Notice severity="caution">{t("shoe.uncalibrated")}</Notice>
      )}
    </div>
  );
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="text-[15px] text-soft">{name}</dt>
      <dd className="text-2xl font-bold">{value}</dd>
    </div>
  );
}
