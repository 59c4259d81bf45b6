import { ToggleGroup } from "radix-ui";
import type { ReactNode } from "react";

interface Props<Value extends string> {
  label: string;
  value: Value;
  choices: { value: Value; label: ReactNode }[];
  onChoose: (value: Value) => void;
  large?: boolean;
}

/** A few choices side by side, one of them on. */
export function Segments<Value extends string>({
  label,
  value,
  choices,
  onChoose,
  large = false,
}: Props<Value>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(next) => next && onChoose(next as Value)}
      className="inline-flex max-w-full flex-wrap gap-px overflow-hidden rounded-md border border-line bg-line"
    >
      {choices.map((choice) => (
        <ToggleGroup.Item
          key={choice.value}
          value={choice.value}
          className={`grow bg-paper px-3 font-medium whitespace-nowrap data-[state=on]:bg-ink data-[state=on]:text-paper ${large ? "min-h-12" : "min-h-9"}`}
        >
          {choice.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
