import {
  ChevronDown,
  ChevronUp,
  CircleCheck,
  Delete,
  Ellipsis,
  GripVertical,
  Keyboard,
  type LucideIcon,
  type LucideProps,
  OctagonMinus,
  Plus,
  Printer,
  Redo2,
  StickyNote,
  TriangleAlert,
  Undo2,
  X,
} from "lucide-react";
import { t } from "@/words/ui";

/** An ordinary sign of a kept set, as large and as strong as the text beside it. */
const ordinary = (Drawn: LucideIcon) => (props: LucideProps) => (
  <Drawn width={20} height={20} strokeWidth={2.1} {...props} />
);

export const PlusIcon = ordinary(Plus);
export const UpIcon = ordinary(ChevronUp);
export const DownIcon = ordinary(ChevronDown);
export const RemoveIcon = ordinary(X);
export const UndoIcon = ordinary(Undo2);
export const BackspaceIcon = ordinary(Delete);
export const KeyboardIcon = ordinary(Keyboard);
export const RedoIcon = ordinary(Redo2);
export const PrintIcon = ordinary(Printer);
export const StopIcon = ordinary(OctagonMinus);
export const CautionIcon = ordinary(TriangleAlert);
export const NoteIcon = ordinary(StickyNote);
export const GoodIcon = ordinary(CircleCheck);
export const MoreIcon = ordinary(Ellipsis);
export const GripIcon = ordinary(GripVertical);

/** End A is a square, end B a circle, wherever they are shown. */
export function EndMark({ end, size = 22 }: { end: "A" | "B"; size?: number }) {
  return (
    <svg
      viewBox="0 0 22 22"
      width={size}
      height={size}
      role="img"
      aria-label={t("end.named", { end })}
      className="inline-block shrink-0 align-[-0.28em]"
    >
      {end === "A" ? (
        <rect x="1" y="1" width="20" height="20" fill="currentColor" />
      ) : (
        <circle cx="11" cy="11" r="10.5" fill="currentColor" />
      )}
      <text x="11" y="16" textAnchor="middle" fontSize="14" fontWeight="700" fill="var(--paper)">
        {end}
      </text>
    </svg>
  );
}

/** A bend's number along the pipe: a tab. */
export function BendTab({ number, chosen = false }: { number: number; chosen?: boolean }) {
  return (
    <span
      className={`tape inline-flex h-6 min-w-7 items-center justify-center rounded-full px-1.5 text-[15px] font-bold ${chosen ? "bg-accent text-on-accent" : "bg-ink text-paper"}`}
    >
      {number}
    </span>
  );
}
