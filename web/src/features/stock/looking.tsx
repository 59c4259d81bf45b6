import { isLooking, useStopPlanning } from "@/api/cutting";
import type { Cutting } from "@/api/types";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/stock";

interface Props {
  jobId: number;
  cutting: Cutting;
  mayWrite: boolean;
  onPlan: () => void;
}

/** How a plan that is being made goes; or why there is none, and that it can be asked for again. */
export function Looking({ jobId, cutting, mayWrite, onPlan }: Props) {
  const stop = useStopPlanning(jobId);
  const solve = cutting.solve;
  if (!solve) return null;
  if (isLooking(cutting)) {
    return (
      <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <p role="status" className="tape text-lg">
          {said(solve)}
        </p>
        {solve.state === "running" && (
          <div
            role="progressbar"
            aria-label={t("looking.time")}
            aria-valuemin={0}
            aria-valuemax={solve.seconds}
            aria-valuenow={Math.round(solve.done)}
            className="h-3 w-40 overflow-hidden rounded-sm border border-line bg-paper"
          >
            <div
              className="h-full bg-accent transition-[width] duration-500 ease-linear"
              style={{ width: `${(100 * solve.done) / solve.seconds}%` }}
            />
          </div>
        )}
        {mayWrite && (
          <Button className="min-h-11" disabled={stop.isPending} onClick={() => stop.mutate(undefined)}>
            {cutting.proposal ? t("looking.keep") : t("looking.stop")}
          </Button>
        )}
      </div>
    );
  }
  if (cutting.proposal && solve.state === "stopped") return null;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3">
      <Notice severity={solve.state === "failed" ? "stop" : "note"}>
        {solve.says || t("looking.stopped")}
      </Notice>
      {mayWrite && (
        <Button className="min-h-11" onClick={onPlan}>
          {t("looking.again")}
        </Button>
      )}
    </div>
  );
}

function said(solve: NonNullable<Cutting["solve"]>): string {
  if (solve.state === "running" && solve.done >= solve.seconds) return t("looking.saving");
  if (solve.state === "running" && solve.late)
    return t("looking.busy", { percent: Math.floor((100 * solve.done) / solve.seconds) });
  if (solve.state === "running") return t("looking.best", { seconds: solve.seconds });
  if (solve.ahead === 0) return t("looking.waiting");
  return solve.ahead === 1 ? t("looking.one_ahead") : t("looking.ahead", { ahead: solve.ahead });
}
