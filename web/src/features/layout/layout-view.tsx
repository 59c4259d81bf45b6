import { type CSSProperties, useCallback, useDeferredValue } from "react";
import { useShoes } from "@/api/queries";
import type { RunDocument } from "@/api/types";
import { GuidedMeasure } from "@/features/layout/measure/guided-measure";
import { isFigure, type Question } from "@/features/layout/measure/questions";
import { useGuided } from "@/features/layout/measure/use-guided";
import { Picture } from "@/features/layout/picture/picture";
import { StepList } from "@/features/layout/steps/step-list";
import { uncalibrated } from "@/trade/fitting-shoe";
import { Notice } from "@/ui/notice";
import { t } from "@/words/layout";
import { ChecksLine } from "./checks-line";
import { useFocus, usePlanned, useWork } from "./run-context";
import { RunSettings } from "./settings";
import { SidePanel } from "./side-panel";
import { Sticks } from "./sticks";
import { Toolbar } from "./toolbar";

/** Measure and route: the list of steps, the picture and the stick, which always agree. */
export function LayoutView() {
  const { planError, ...now } = usePlanned();
  // Drawn in slices, so that typing never waits for the picture.
  const plan = useDeferredValue(now.plan);
  const rack = useDeferredValue(now.rack);
  const { choose, side } = useFocus();
  const { draft } = useWork();
  const guided = useGuided();
  const isLow = guided !== null && isCrowded(draft.document, guided.now);
  const shoes = useShoes();
  const isCalibrated = !shoes.data || !uncalibrated(shoes.data, draft.document);

  const goTo = useCallback(
    (step: number) => {
      choose(step);
      document.querySelector(`[data-step="${step}"]`)?.scrollIntoView({ block: "nearest" });
    },
    [choose],
  );

  return (
    <main
      style={{ "--picture": isLow ? "20dvh" : "36dvh" } as CSSProperties}
      className="flex flex-1 flex-col lg:h-[calc(100dvh-3.5rem)] lg:flex-none lg:flex-row"
    >
      {/* Beside an open panel on a small screen the list is narrower, so that half of it stays the picture's. */}
      <div
        className={`flex shrink-0 flex-col overflow-y-auto border-line bg-paper max-lg:order-3 lg:border-r 2xl:w-[25rem] ${guided ? "max-lg:grow" : ""} ${side ? "lg:w-[19rem]" : "lg:w-[25rem]"}`}
      >
        {guided ? (
          <GuidedMeasure {...guided} />
        ) : (
          <>
            <Toolbar />
            <RunSettings />
            <StepList />
          </>
        )}
      </div>
      <SidePanel />
      <div className="flex min-w-0 flex-1 flex-col max-lg:contents">
        {planError && (
          <div className="border-b border-line bg-paper px-4 py-2 max-lg:order-2">
            <Notice severity="caution">{t("plan.kept", { planError })}</Notice>
          </div>
        )}
        {plan ? <Picture plan={plan} rack={rack} isLow={isLow} /> : <PictureToCome />}
        {plan && (
          <ChecksLine
            plan={plan}
            rack={rack}
            isCalibrated={isCalibrated}
            onChoose={guided ? guided.open : goTo}
          />
        )}
        {plan && !guided && <Sticks plan={plan} />}
      </div>
    </main>
  );
}

/** The room that picture and line take until there is a plan: above the list on a phone. */
function PictureToCome() {
  return (
    <div
      aria-hidden="true"
      className="flex-1 max-lg:order-1 max-lg:h-[calc(var(--picture)+5.75rem)] max-lg:flex-none"
    />
  );
}

/** Where the screen is wanted for what may be met, or for the pad. */
const isCrowded = (document: RunDocument, now: Question): boolean =>
  now.of === "met" || isFigure(document, now);
