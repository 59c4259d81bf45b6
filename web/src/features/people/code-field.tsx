import { Field } from "@/ui/field";
import { t } from "@/words/people";

interface Props {
  value: string;
  label?: string;
  onChange: (code: string) => void;
  wrong?: string | undefined;
}

/** The code of the second factor: the phone's six figures, or a spare one. */
export function CodeField({ label = t("code.label"), value, onChange, wrong }: Props) {
  return (
    <Field
      label={label}
      autoComplete="one-time-code"
      value={value}
      wrong={wrong}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}
