import { Link } from "react-router";
import { useCutting } from "@/api/cutting";
import { useRack } from "@/api/stock-queries";
import type { Bench, Scrap, StickAtBench, TakenBar, TakenCut } from "@/api/types";
import { beginsAt, needsNoSaw, wholeOrRest } from "@/trade/saw";
import { Select } from "@/ui/select";
import { t } from "@/words/bench";

/** What a stick is cut from where no scrap is named: a new stick, or whatever is at hand. */
export const ANY = "any";
const OFFERED = 40;

interface Planned {
  bar: TakenBar;
  cut: TakenCut;
}

/** What a stick is cut from by the cut plan that was taken; without one, the free scraps that are long enough. */
export function useSources(bench: Bench, stick: StickAtBench): { planned: Planned | null; scraps: Scrap[] } {
  const cutting = useCutting(bench.job_id);
  const rack = useRack();
  for (const bar of cutting.data?.taken.bars ?? [])
    for (const cut of bar.cuts)
      if (cut.run === bench.run_id && cut.piece === stick.sheet.piece && !cut.stale)
        return { planned: { bar, cut }, scraps: [] };
  const fitting = (scrap: Scrap) =>
    scrap.material === bench.material &&
    scrap.trade_size === bench.trade_size &&
    scrap.length >= stick.sheet.cut.inches &&
    !scrap.reserved_for;
  const scraps = (rack.data?.scraps ?? []).filter(fitting).sort((a, b) => a.length - b.length);
  return { planned: null, scraps: scraps.slice(0, OFFERED) };
}

/** The plan's source in words. */
export function PlannedSource({ bench, planned: { bar, cut } }: { bench: Bench; planned: Planned }) {
  return (
    <p className="tape mt-1 text-lg">
      {t("source.from")}{" "}
      <Link to={`/jobs/${bench.job_id}/stock?run=${bench.run_id}`} className="font-bold underline">
        {bar.name}
      </Link>{" "}
      {t("source.bar", {
        bar: bar.length.reads,
        whence: bar.scrap ? bar.place || t("source.on_rack") : t("source.new_stick"),
      })}
      {beginsAt(bar)}):{" "}
      {needsNoSaw(cut, bar) ? (
        wholeOrRest(cut)
      ) : (
        <strong>{t("source.saw_at", { end: cut.end.reads })}</strong>
      )}
      .
    </p>
  );
}

/** Which scrap it is cut from, said before it is cut: then the rack follows. */
export function ChosenSource(props: { scraps: Scrap[]; chosen: string; onChoose: (tag: string) => void }) {
  const choices = props.scraps.map((scrap) => ({
    value: scrap.tag,
    label: t("source.scrap", { tag: scrap.tag, scrap: scrap.reads }),
    hint: scrap.place,
  }));
  return (
    <p className="tape mt-2 flex items-center gap-2 text-lg">
      {t("source.from")}
      <Select
        boxed
        label={t("source.label")}
        value={props.chosen}
        choices={[{ value: ANY, label: t("source.new_stick") }, ...choices]}
        onChoose={props.onChoose}
      />
    </p>
  );
}
