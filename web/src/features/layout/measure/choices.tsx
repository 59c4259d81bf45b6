import type { ReactNode } from "react";

interface ChoiceProps {
  drawn: ReactNode;
  says: string;
  hint?: string | undefined;
  isOn?: boolean;
  onChoose: () => void;
}

/** Choices as large as a thumb in a glove wants them. */
export function Choices({ children }: { children: ReactNode }) {
  return <div className="mt-auto grid grid-cols-2 gap-1.5">{children}</div>;
}

/** One of them: drawn, and by its name. */
export function LargeChoice({ drawn, says, hint, isOn = false, onChoose }: ChoiceProps) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      onClick={onChoose}
      className="flex min-h-16! items-center gap-2 rounded-md border border-line bg-sheet px-2 py-1 text-left leading-tight text-ink active:bg-tint aria-pressed:border-2 aria-pressed:border-accent aria-pressed:bg-tint"
    >
      {drawn}
      <span className="min-w-0">
        <span className="block font-semibold">{says}</span>
        {hint && <span className="block text-[15px] text-soft">{hint}</span>}
      </span>
    </button>
  );
}
