import { useLetGo } from "@/api/cutting";
import type { Cutting, TakenBar } from "@/api/types";
import { things } from "@/trade/counts";
import { beginsAt } from "@/trade/saw";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { Notice } from "@/ui/notice";
import { t } from "@/words/stock";
import { CutBar, type DrawnBar } from "./cut-bar";
import { CutRow } from "./cut-row";
import { StopSettings } from "./stop-settings";

/** The plan that was taken: each source with its cuts, confirmed one by one; rack and ledger follow. */
export function CuttingView({
  jobId,
  cutting,
  mayWrite,
}: {
  jobId: number;
  cutting: Cutting;
  mayWrite: boolean;
}) {
  const letGo = useLetGo(jobId);
  const { taken } = cutting;
  const longest = Math.max(1, ...taken.bars.map((bar) => bar.length.inches));
  const bars = taken.bars.filter((bar) => bar.cuts.length > 0);
  return (
    <section aria-label={t("cutting.title")}>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <p className="tape text-lg">
          <strong>
            {t("cutting.progress", { cut: taken.cut, pieces: things(taken.cut + taken.to_cut, "piece") })}
          </strong>
          {t("cutting.reserved")}
        </p>
        <div className="ml-auto flex gap-2">
          <Button onClick={() => window.print()}>{t("print")}</Button>
          <a
            href={`/api/jobs/${jobId}/cutting/cuts.csv`}
            className="inline-flex min-h-9 items-center rounded-md border border-line bg-paper px-3.5 font-medium hover:border-ink"
          >
            {t("csv")}
          </a>
          {mayWrite && taken.to_cut > 0 && (
            <Confirm
              trigger={<Button>{t("cutting.release")}</Button>}
              title={t("cutting.cancel_ask")}
              says={t("cutting.cancel_says")}
              act={t("cutting.cancel")}
              onAct={() => letGo.mutate(undefined)}
            />
          )}
        </div>
      </div>
      <StopSettings stop={taken.stop} named />
      <p className="mt-1 text-[15px] text-soft">{t("cautions")}</p>
      {letGo.error && (
        <div className="mt-2">
          <Notice severity="stop">{letGo.error.message}</Notice>
        </div>
      )}
      {taken.stale > 0 && (
        <div className="mt-2">
          <Notice severity="caution">
            {t("refused.says", {
              pieces: things(taken.stale, "piece"),
              detail: taken.stale === 1 ? t("refused.fits_single") : t("refused.fit_many"),
            })}
          </Notice>
        </div>
      )}
      {bars.map((bar) => (
        <div key={bar.id}>
          <CutBar bar={drawn(bar)} longest={longest} />
          <ul aria-label={t("bar.label", { bar: bar.name })} className="mt-0.5">
            {bar.cuts.map((cut) => (
              <CutRow key={cut.id} jobId={jobId} bar={bar} cut={cut} mayWrite={mayWrite} />
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

function drawn(bar: TakenBar): DrawnBar {
  const offcut = bar.offcut ? `${bar.offcut.reads} → ${bar.offcut_tag || "rack"}` : "";
  const left = bar.offcut ? t("bar.left", { offcut }) : "";
  return {
    name: bar.name,
    about: `, ${bar.trade_size} ${bar.material}${bar.place ? `, ${bar.place}` : ""}${bar.scrap ? "" : t("bar.new_stick")}${beginsAt(bar)}${left}`,
    length: bar.length,
    square: bar.square,
    cuts: bar.cuts.map((cut) => ({ ...cut, key: String(cut.id), done: cut.done_at !== null })),
    left: offcut,
  };
}
