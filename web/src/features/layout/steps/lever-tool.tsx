import type { Step } from "@/api/types";
import { ANGLES } from "@/trade/words";
import { t } from "@/words/layout";
import { AddFigure, TakeOut } from "./add-figure";
import { useStepContext } from "./step-context";
import { StepNumber } from "./step-number";

interface Props {
  step: Step;
  onChange: (next: Step, field: string) => void;
}

/** How a box offset is made: bent on the shoe at an angle, or stamped by a lever tool with a rise and length of its own. */
export function LeverTool({ step, onChange }: Props) {
  const { chosen, mayWrite } = useStepContext();
  if (step.kind !== "box_offset") return null;
  const { stamped } = step;
  const set = (field: string, value: string | null) => onChange({ ...step, [field]: value } as Step, field);
  if (stamped === null || stamped === undefined)
    return (
      <>
        {t("at")}{" "}
        <StepNumber
          field="angle"
          value={step.angle ?? "10"}
          steps={ANGLES}
          unit="°"
          onChange={(angle) => set("angle", angle)}
        />
        {chosen && mayWrite && <AddFigure says={t("leverTool")} onAdd={() => set("stamped", "")} />}
      </>
    );
  return (
    <>
      {t("stampedByALeverTool")}{" "}
      <StepNumber field="stamped" value={stamped} onChange={(rise) => set("stamped", rise)} /> {t("in")}{" "}
      <StepNumber
        field="stamped_length"
        value={step.stamped_length ?? "3"}
        onChange={(long) => set("stamped_length", long)}
      />
      {mayWrite && (
        <TakeOut
          says={t("bendItOnTheShoe")}
          onTake={() => onChange({ ...step, stamped: null } as Step, "angle")}
        />
      )}
    </>
  );
}
