import type { ReactNode } from "react";
import type { Step } from "@/api/types";
import { Menu, MenuItem } from "@/ui/menu";
import { t } from "@/words/walk";
import { MET } from "./new-step";

interface Props {
  trigger: ReactNode;
  onAdd: (kind: Step["kind"]) => void;
  /** Nothing more is met: on to the end. */
  onEnd?: () => void;
}

/** A step is added by what is met on the way; the bend is the answer. */
export function AddStep({ trigger, onAdd, onEnd }: Props) {
  return (
    <Menu trigger={trigger}>
      {MET.map((choice) => (
        <MenuItem key={choice.kind} onSelect={() => onAdd(choice.kind)}>
          <svg width="34" height="22" viewBox="0 0 34 22" aria-hidden="true" className="shrink-0">
            <path
              d={choice.profile}
              fill="none"
              stroke="currentColor"
              strokeWidth="3"
              strokeLinejoin="round"
            />
          </svg>
          {choice.met} <span className="ml-auto text-[15px] text-soft">{choice.answer}</span>
        </MenuItem>
      ))}
      {onEnd && (
        <MenuItem onSelect={onEnd}>
          <span className="w-[34px] shrink-0" /> {t("nothingMore")}{" "}
          <span className="ml-auto text-[15px] text-soft">{t("theEnd")}</span>
        </MenuItem>
      )}
    </Menu>
  );
}
