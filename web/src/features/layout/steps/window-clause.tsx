import type { Step } from "@/api/types";
import { t } from "@/words/layout";
import { AddFigure, TakeOut } from "./add-figure";
import { useStepContext } from "./step-context";
import { StepNumber } from "./step-number";

interface Props {
  step: Step;
  onChange: (next: Step, field: string) => void;
}

/** Above this, below that: between which measures a turn may lie, where that was asked for. */
export function WindowClause({ step, onChange }: Props) {
  const { called, mayWrite, chosen } = useStepContext();
  if (!("turn" in step)) return null;
  const low = step.at_least ?? null;
  const high = step.at_most ?? null;
  if (low === null && high === null) {
    if (!mayWrite || !chosen) return null;
    const ask = () => onChange({ ...step, at_least: "", at_most: "" }, "at_least");
    return <AddFigure says={t("window")} onAdd={ask} />;
  }
  return (
    <>
      {t("atLeast2")}{" "}
      <StepNumber
        field="at_least"
        value={low ?? ""}
        onChange={(text) => onChange({ ...step, at_least: text }, "at_least")}
      />{" "}
      {t("andAtMost")}{" "}
      <StepNumber
        field="at_most"
        value={high ?? ""}
        onChange={(text) => onChange({ ...step, at_most: text }, "at_most")}
      />
      {mayWrite && (
        <TakeOut
          says={t("takeTheWindowOut", { called })}
          onTake={() => onChange({ ...step, at_least: null, at_most: null }, "")}
        />
      )}
    </>
  );
}
