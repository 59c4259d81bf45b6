import { Select as Radix } from "radix-ui";
import { useState } from "react";
import { DownIcon } from "./icons";
import { landmark } from "./landmark";
import { staysPut } from "./stays-put";

export interface Choice<Value extends string> {
  value: Value;
  label: string;
  hint?: string;
}

interface Props<Value extends string> {
  label: string;
  value: Value;
  choices: Choice<Value>[];
  onChoose: (value: Value) => void;
  boxed?: boolean;
  disabled?: boolean;
  invalid?: boolean;
}

const LETTER = /^[\p{L}\p{N}]$/u;

/** One of a few, as a word in a sentence (or boxed, in a form). */
export function Select<Value extends string>(props: Props<Value>) {
  const { label, value, choices, onChoose, boxed = false, disabled = false, invalid = false } = props;
  const [isOpen, setIsOpen] = useState(false);
  const look = boxed
    ? "min-h-11 rounded-md border border-line bg-paper px-2.5"
    : "h-7 rounded-sm border-b-2 border-dotted px-0.5 leading-6 hover:bg-tint";
  const edge = invalid ? "border-stop" : boxed ? "" : "border-accent/60";
  return (
    <Radix.Root
      value={value}
      onValueChange={(next) => onChoose(next as Value)}
      open={isOpen}
      onOpenChange={setIsOpen}
      disabled={disabled}
    >
      <Radix.Trigger
        aria-label={label}
        onKeyDown={({ key, ctrlKey, metaKey, altKey }) => {
          // Typing opens it; what is typed then is looked for in it.
          if (LETTER.test(key) && !ctrlKey && !metaKey && !altKey) setIsOpen(true);
        }}
        className={`inline-flex items-center gap-0.5 font-semibold disabled:opacity-60 ${look} ${edge}`}
      >
        <Radix.Value>
          <span className="tape">{choices.find((choice) => choice.value === value)?.label ?? value}</span>
        </Radix.Value>
        <Radix.Icon>
          <DownIcon width={14} height={14} />
        </Radix.Icon>
      </Radix.Trigger>
      {/* A page has dozens of lists: their options are made once one is opened. */}
      {isOpen && (
        <Radix.Portal container={landmark()}>
          <Radix.Content
            ref={staysPut}
            position="popper"
            sideOffset={4}
            collisionPadding={8}
            className="z-50 max-h-[min(20rem,var(--radix-select-content-available-height))] max-w-[94vw] overflow-auto rounded-md border border-ink bg-paper p-1 shadow-lg"
          >
            <Radix.Viewport>
              {choices.map((choice) => (
                <Radix.Item
                  key={choice.value}
                  value={choice.value}
                  className="flex min-h-10 items-center justify-between gap-6 rounded-sm px-3 outline-none data-highlighted:bg-tint data-[state=checked]:font-bold"
                >
                  <Radix.ItemText>
                    <span className="tape">{choice.label}</span>
                  </Radix.ItemText>
                  {choice.hint && <span className="text-[15px] text-soft">{choice.hint}</span>}
                </Radix.Item>
              ))}
            </Radix.Viewport>
          </Radix.Content>
        </Radix.Portal>
      )}
    </Radix.Root>
  );
}
