import { type CSSProperties, useEffect, useRef } from "react";
import { focusNext } from "@/ui/tape-field";
import { t } from "@/words/layout";

interface Props {
  label: string;
  value: string;
  disabled: boolean;
  placeholder?: string;
  onChange: (value: string) => void;
  /** Met on the way from figure to figure by Enter. */
  walked?: boolean;
  /** Has the focus at first. */
  focused?: boolean;
}

/** A name in a sentence, as wide as what is written in it. */
export function NameField({
  label,
  value,
  disabled,
  placeholder = t("name.placeholder"),
  onChange,
  walked = false,
  focused = false,
}: Props) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (focused) input.current?.select();
  }, [focused]);
  return (
    <input
      ref={input}
      aria-label={label}
      data-tape={walked || undefined}
      onKeyDown={(event) => {
        if (event.key !== "Enter") return;
        event.preventDefault();
        focusNext(event.currentTarget);
      }}
      enterKeyHint="next"
      value={value}
      maxLength={80}
      placeholder={placeholder}
      disabled={disabled}
      onChange={(event) => onChange(event.target.value)}
      style={
        {
          "--fallback-width": `${Math.max(value.length, value ? 0 : placeholder.length, 6) + 2}ch`,
        } as CSSProperties
      }
      className="grows h-7 max-w-full rounded-sm border-b-2 border-dotted border-accent/60 bg-transparent px-0.5 font-semibold text-ink hover:bg-tint focus:bg-tint"
    />
  );
}
