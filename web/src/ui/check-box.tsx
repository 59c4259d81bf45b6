import type { ReactNode } from "react";

interface Props {
  checked: boolean;
  onCheck: (checked: boolean) => void;
  disabled?: boolean;
  className?: string;
  children: ReactNode;
}

/** Something that is so or not, ticked with a thumb: its words are part of the target. */
export function CheckBox({ checked, onCheck, disabled = false, className = "", children }: Props) {
  return (
    <label className={`flex min-h-11 items-center gap-3 ${className}`}>
      <input
        type="checkbox"
        className="size-6 shrink-0 accent-accent"
        checked={checked}
        disabled={disabled}
        onChange={(event) => onCheck(event.target.checked)}
      />
      <span>{children}</span>
    </label>
  );
}
