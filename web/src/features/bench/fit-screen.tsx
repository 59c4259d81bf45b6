import { Button } from "@/ui/button";
import { CheckBox } from "@/ui/check-box";
import { Confirm } from "@/ui/confirm";
import { GoodIcon } from "@/ui/icons";
import { timeOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { t } from "@/words/bench";
import { useBenchContext } from "./bench-context";
import { CorrectionTold } from "./correction";
import { Screens } from "./screens";
import { judgedOf } from "./stick-steps";

/** The last screen of a stick: dry-fit, trim, fit; or begin another. */
export function FitScreen() {
  const { bench, stick, act, mayWrite, waiting, go } = useBenchContext();
  const { sheet } = stick;
  const open = sheet.bends.filter((bend) => !judgedOf(bend, waiting.get(bend.number)));
  const begun = stick.begun || stick.cut_at || waiting.size > 0;
  return (
    <section aria-label={t("fit.title")} className="flex flex-1 flex-col gap-4">
      <h2 className="text-2xl font-bold">{t("fit.stick", { piece: sheet.piece })}</h2>
      {open.length > 0 && (
        <Notice severity="note">
          {t("fit.open", { open: open.map((bend) => t("fit.bend", { bend: bend.number })).join(", ") })}
        </Notice>
      )}
      <CorrectionTold />
      <ul className="list-disc pl-6 text-lg leading-relaxed">
        {sheet.stamps.map((line) => (
          <li key={line} className="tape">
            {line}
          </li>
        ))}
        <li>{t("fit.dry")}</li>
        {(sheet.spare || sheet.spare_a) && sheet.cutting.slice(1).map((line) => <li key={line}>{line}</li>)}
        <li>{t("fit.lock_out")}</li>
      </ul>
      <FittedChecks />
      {stick.fitted_at && (
        <p className="flex items-center gap-2 text-xl font-semibold text-good">
          <GoodIcon width={26} height={26} /> {t("fit.done")}
          {stick.fitted_by && t("fit.by", { fitted_by: stick.fitted_by })}
        </p>
      )}
      {mayWrite && begun && !stick.fitted_at && (
        <Confirm
          trigger={<Button className="min-h-12 self-start">{t("scrap.do")}</Button>}
          title={t("scrap.ask", { piece: sheet.piece })}
          says={t("scrap.says")}
          act={t("correct.scrap")}
          onAct={async () => {
            if (await act({ kind: "scrapped", piece: sheet.piece })) go("cut");
          }}
        />
      )}
      <p className="text-[15px] text-soft">
        {t(bench.own_limits ? "fit.own_limits" : "fit.limits", {
          material: bench.material,
          trade_size: bench.trade_size,
        })}
      </p>
      <Screens>
        {mayWrite ? (
          <Button
            look={stick.fitted_at ? "plain" : "main"}
            className="min-h-14 flex-1 text-lg lg:max-w-56"
            onClick={() => act({ kind: stick.fitted_at ? "unfitted" : "fitted", piece: sheet.piece })}
          >
            {stick.fitted_at ? t("fit.undo") : t("fit.do")}
          </Button>
        ) : undefined}
      </Screens>
    </section>
  );
}

/** What is looked at when it hangs, each ticked by a person and kept with name and time. */
function FittedChecks() {
  const { stick, act, mayWrite } = useBenchContext();
  const { sheet } = stick;
  const checked = new Map(stick.fit_checked.map((one) => [one.item, one]));
  return (
    <fieldset className="rounded-lg border border-line bg-paper px-3 py-2">
      <legend className="px-1 font-bold">
        {t("fit.checks", { checked: checked.size, fit: sheet.fit.length })}
      </legend>
      {sheet.fit.map(({ item, says }) => {
        const told = checked.get(item);
        return (
          <CheckBox
            key={item}
            className="border-b border-line/60 py-1 text-lg"
            checked={Boolean(told)}
            disabled={!mayWrite}
            onCheck={(now) => act({ kind: now ? "checked" : "unchecked", piece: sheet.piece, item })}
          >
            <span className="tape">{says}</span>
            {told?.by && (
              <span className="block text-[15px] text-soft">
                {told.by}, {timeOf(told.at)}
              </span>
            )}
          </CheckBox>
        );
      })}
    </fieldset>
  );
}
