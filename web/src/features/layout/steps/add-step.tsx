import type { ReactNode } from "react";
import { KINDS, type KindName } from "@/trade/kinds";
import { Menu, MenuItem } from "@/ui/menu";
import { clauseWord } from "@/words/clauses";
import { t } from "@/words/layout";

interface Props {
  trigger: ReactNode;
  onAdd: (kind: KindName) => void;
  /** Nothing more is met: on to the end. */
  onEnd?: () => void;
}

/** A step is added by its name in the trade, with what it serves for beside it. */
export function AddStep({ trigger, onAdd, onEnd }: Props) {
  return (
    <Menu trigger={trigger}>
      {KINDS.map(({ kind, profile }) => (
        <MenuItem key={kind} onSelect={() => onAdd(kind)}>
          <svg width="34" height="22" viewBox="0 0 34 22" aria-hidden="true" className="shrink-0">
            <path d={profile} fill="none" stroke="currentColor" strokeWidth="3" strokeLinejoin="round" />
          </svg>
          <strong className="font-semibold">{clauseWord(`kind.${kind}.called`)}</strong>{" "}
          <span className="ml-auto pl-6 text-[15px] text-soft">{clauseWord(`kind.${kind}.met`)}</span>
        </MenuItem>
      ))}
      {onEnd && (
        <MenuItem onSelect={onEnd}>
          <span className="w-[34px] shrink-0" /> <strong className="font-semibold">{t("step.end")}</strong>{" "}
          <span className="ml-auto pl-6 text-[15px] text-soft">{t("step.end.hint")}</span>
        </MenuItem>
      )}
    </Menu>
  );
}
