import type { Correction } from "@/api/types";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { BendTab } from "@/ui/icons";
import { t } from "@/words/bench";
import { useBenchContext } from "./bench-context";

const TITLES: Record<Correction["advice"], string> = {
  go_on: t("correct.fits"),
  replan: t("correct.remark"),
  rebend: t("correct.back_in"),
  trim: t("correct.move_cut"),
  spring: t("correct.nearly"),
  scrap: t("correct.scrap"),
};

/** What to do after the bends that are made came out as they did; nothing where nothing needs doing. */
export function CorrectionTold() {
  const { stick, act, mayWrite, go } = useBenchContext();
  const { correction } = stick.sheet;
  if (!correction || correction.advice === "go_on") return null;
  const { rebends, advice } = correction;
  return (
    <section
      aria-label={t("correct.title")}
      className={`mt-2 rounded-md border-2 bg-paper p-3 ${advice === "scrap" ? "border-stop" : "border-caution"}`}
    >
      <h2 className={`text-xl font-bold ${advice === "scrap" ? "text-stop" : "text-caution"}`}>
        {TITLES[advice]}
      </h2>
      {rebends.map((one) => (
        <p key={`${one.bend} ${one.way}`} className="tape text-2xl font-bold">
          {one.way === "twist"
            ? t("correct.twist", { bend: one.bend, by_reads: one.by_reads })
            : t(one.way === "close" ? "correct.close" : "correct.open", {
                bend: one.bend,
                by_reads: one.by_reads,
                until_reads: one.until_reads,
              })}
        </p>
      ))}
      <p className="tape mt-1 text-lg">{correction.says}</p>
      <p className="tape text-[15px] text-soft">
        {t("correct.misses", { misses: correction.misses.reads, after: correction.after.reads })}
      </p>
      <Cuts correction={correction} />
      {correction.replanned.length > 0 && (
        <ul className="mt-2 flex flex-col gap-1">
          {correction.replanned.map((one) => (
            <li key={one.bend} className="tape flex flex-wrap items-center gap-x-3 text-lg">
              <BendTab number={one.bend} />
              <s className="text-soft">{one.mark_before}</s>
              <strong className="text-2xl">{one.mark}</strong>
              <s className="text-soft">{one.angle_before}</s>
              <strong className="text-2xl">{one.angle}</strong>
              {one.turned && <span>{t("correct.rolled", { turned: one.turned })}</span>}
            </li>
          ))}
        </ul>
      )}
      {mayWrite && (
        <div className="mt-2 flex flex-wrap gap-2">
          {correction.or_leave &&
            rebends.map((one) => (
              <Button
                key={one.bend}
                className="min-h-12"
                onClick={() => act({ kind: "left", piece: stick.sheet.piece, bend: one.bend })}
              >
                {t("correct.leave", { bend: one.bend })}
              </Button>
            ))}
          {(advice === "scrap" || advice === "spring") && (
            <Confirm
              trigger={<Button className="min-h-12">{t("scrap.do")}</Button>}
              title={t("scrap.ask", { piece: stick.sheet.piece })}
              says={t("scrap.says")}
              act={t("correct.scrap")}
              onAct={async () => {
                if (await act({ kind: "scrapped", piece: stick.sheet.piece })) go("cut");
              }}
            />
          )}
        </div>
      )}
    </section>
  );
}

function Cuts({ correction: { cut_a, cut_b } }: { correction: Correction }) {
  const said = [
    { end: "A", cut: cut_a },
    { end: "B", cut: cut_b },
  ].flatMap(({ end, cut }) => (cut ? [{ end, ...cut }] : []));
  return said.map(({ end, inches, reads }) => (
    <p key={end} className="tape text-lg font-semibold">
      {inches > 0
        ? t("correct.cut_off", { reads, end })
        : t("correct.leave_spare", { reads: reads.slice(1), end })}
    </p>
  ));
}
