import { lazy, Suspense, useState } from "react";
import type { Plan, RackPlan } from "@/api/types";
import { useFocus, useMarksCheck } from "@/features/layout/run-context";
import { SIDES, type Side } from "@/scene/sides";
import { Segments } from "@/ui/segments";
import { useSize } from "@/ui/use-size";
import { t } from "@/words/layout";
import { FlatPicture } from "./picture-flat";

const TurnedPicture = lazy(() =>
  import("./picture-turned").then((module) => ({ default: module.TurnedPicture })),
);

interface Props {
  plan: Plan;
  rack: RackPlan | undefined;
  /** There is room for the run alone: it stays as it was looked at last. */
  isLow?: boolean;
}

/** The run in space at true proportions, as pipe, with the measurements where they were taken. */
export function Picture({ plan, rack, isLow = false }: Props) {
  const { chosen, choose } = useFocus();
  const { judged } = useMarksCheck();
  const [shown, setShown] = useState<Side>("front");
  const [ref, size] = useSize<HTMLDivElement>();
  const { picture } = plan;
  const common = { plan, rack, chosen, onChoose: choose, judged };
  return (
    <section
      aria-label={t("picture.title")}
      className="relative flex-1 lg:min-h-64 overflow-hidden bg-sheet max-lg:sticky max-lg:top-0 max-lg:z-20 max-lg:order-1 max-lg:h-[var(--picture)] max-lg:flex-none max-lg:border-b max-lg:border-line"
    >
      <div ref={ref} className="absolute inset-0">
        {picture && shown === "turned" && (
          <Suspense fallback={<p className="p-4 pt-16 text-soft">{t("picture.opening")}</p>}>
            <TurnedPicture picture={picture} {...common} />
          </Suspense>
        )}
        {picture && shown !== "turned" && size.width > 0 && (
          <FlatPicture picture={picture} view={shown} size={size} isLow={isLow} {...common} />
        )}
      </div>
      {!isLow && (
        <div className="absolute top-3 left-3">
          <Segments label={t("picture.view")} value={shown} choices={SIDES} onChoose={setShown} />
        </div>
      )}
    </section>
  );
}
