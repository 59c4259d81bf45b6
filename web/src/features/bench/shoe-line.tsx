import { useRefigure } from "@/api/shoe-queries";
import { Button } from "@/ui/button";
import { dayOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { t } from "@/words/bench";
import { useBenchContext } from "./bench-context";

/** Which shoe this is for, and what is to be said of its figures; shown wherever a mark is. */
export function ShoeLine() {
  const { bench, stick, mayWrite, offline } = useBenchContext();
  const refigure = useRefigure(bench.run_id);
  const { shoe } = stick;
  return (
    <div className="flex flex-col gap-1 text-[15px]">
      <p className="tape text-soft">
        {t("shoe")} <strong className="text-ink">{shoe.name}</strong>
        {t("shoe.figures", { deduct: stick.used.deduct.reads, gain: stick.used.gain.reads })}
        {shoe.calibrated_at && t("shoe.calibrated", { calibrated_at: dayOf(shoe.calibrated_at) })}
      </p>
      {shoe.cautions.map((caution) => (
        <Notice key={caution} severity="caution">
          {caution}
        </Notice>
      ))}
      {shoe.figures && !stick.begun && mayWrite && !offline && (
        <Button
          className="min-h-12 self-start"
          disabled={refigure.isPending}
          onClick={() =>
            refigure.mutate({
              version: bench.version,
              document: { ...bench.document, shoe: shoe.figures },
            })
          }
        >
          {t("shoe.use_current")}
        </Button>
      )}
      {refigure.error && <Notice severity="stop">{refigure.error.message}</Notice>}
    </div>
  );
}
