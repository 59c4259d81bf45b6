import { useWork } from "@/features/layout/run-context";
import { kindWord } from "@/trade/kinds";
import { Button } from "@/ui/button";
import { t } from "@/words/layout";
import { EndQuestion, WholeQuestion } from "./at-the-end";
import { chooseMeasure } from "./measure-choice";
import { questionAfter, questionBefore } from "./questions";
import { StepQuestion } from "./step-question";
import type { Guided } from "./use-guided";
import { MetQuestion, StartQuestion } from "./what-is-met";

/** The run asked for one thing after the other, each large; the list of all steps is one touch away. */
export function GuidedMeasure({ now, ask, open }: Guided) {
  const { draft } = useWork();
  const { document } = draft;
  const props = { goOn: () => ask(questionAfter(document, now)), ask };
  const step = now.of === "step" ? document.steps[now.index] : undefined;
  return (
    <section aria-label={t("guided.title")} className="flex flex-1 flex-col gap-1.5 px-3 pt-1 pb-3">
      <h1 className="sr-only">{t("tool.layout")}</h1>
      <div className="-mx-1.5 flex items-center gap-2">
        {now.of !== "start" && (
          <Button
            look="quiet"
            className="min-h-12! min-w-12"
            onClick={() => ask(questionBefore(document, now))}
          >
            ‹ {t("guided.back")}
          </Button>
        )}
        <p className="min-w-0 flex-1 truncate text-center text-soft">
          {step &&
            now.of === "step" &&
            t("guided.step", { number: now.index + 1, kind: kindWord(step.kind) })}
        </p>
        <Button look="quiet" className="min-h-12!" onClick={() => chooseMeasure("list")}>
          {t("guided.all")}
        </Button>
      </div>
      {now.of === "start" && <StartQuestion {...props} />}
      {now.of === "met" && <MetQuestion key={now.index} index={now.index} {...props} />}
      {now.of === "step" && (
        <StepQuestion key={`${now.index} ${now.field}`} index={now.index} field={now.field} {...props} />
      )}
      {now.of === "end" && <EndQuestion {...props} />}
      {now.of === "whole" && <WholeQuestion ask={ask} open={open} />}
    </section>
  );
}
