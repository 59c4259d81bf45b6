import type { ReactNode } from "react";
import { KINDS, type KindName } from "@/trade/kinds";
import { Menu, MenuItem } from "@/ui/menu";
import { clauseWord } from "@/words/clauses";
import { t } from "@/words/layout";
import { KindDrawing } from "./kind-drawing";

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
          <KindDrawing profile={profile} />
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
