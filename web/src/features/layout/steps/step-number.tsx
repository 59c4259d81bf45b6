import type { Written } from "@/api/types";
import { placed, stops } from "@/features/layout/run-context";
import { fieldWord } from "@/trade/kinds";
import { TapeField } from "@/ui/tape-field";
import { useStepContext } from "./step-context";

interface NumberProps {
  field: string;
  value: Written;
  onChange: (value: string) => void;
  steps?: string[];
  unit?: string;
  passedOver?: boolean;
}

/** A figure of the step of the sentence, read as the server reads it. */
export function StepNumber({ field, ...rest }: NumberProps) {
  const { place, called, mayWrite, findings, read } = useStepContext();
  const wrong = placed(findings, `${place}.${field}`).some(stops);
  return (
    <TapeField
      label={`${called}, ${fieldWord(field)}`}
      disabled={!mayWrite}
      invalid={wrong}
      describedBy={wrong ? `findings-${place}` : undefined}
      read={read[`${place}.${field}`]}
      {...rest}
    />
  );
}
