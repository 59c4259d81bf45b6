import type { ReactNode } from "react";
import { t } from "@/words/ui";
import { CautionIcon, NoteIcon, StopIcon } from "./icons";

export type Severity = "stop" | "caution" | "note";

const WORDS: Record<Severity, string> = {
  stop: t("severity.stop"),
  caution: t("severity.caution"),
  note: t("severity.note"),
};
const COLORS: Record<Severity, string> = { stop: "text-stop", caution: "text-caution", note: "text-soft" };
const ICONS = { stop: StopIcon, caution: CautionIcon, note: NoteIcon };

/** A finding: shape, word and colour, then what is wrong and what would do. */
export function Notice({ severity, children, id }: { severity: Severity; children: ReactNode; id?: string }) {
  const Icon = ICONS[severity];
  return (
    <div
      id={id}
      role={severity === "stop" ? "alert" : "status"}
      className="flex gap-1.5 text-[15px] leading-snug"
    >
      <span className={`mt-px flex h-fit shrink-0 items-center gap-1 font-bold ${COLORS[severity]}`}>
        <Icon width={18} height={18} />
        <span className="sr-only">{WORDS[severity]}:</span>
      </span>
      <div className="tape">{children}</div>
    </div>
  );
}
