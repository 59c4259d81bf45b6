import { useState } from "react";
import type { Measure } from "@/api/types";
import { Button } from "@/ui/button";
import { TapeField } from "@/ui/tape-field";
import { t } from "@/words/bench";
import { useBenchContext } from "./bench-context";

/** Cut first, or bend long and cut after: both are normal; which is advised follows from the expected errors. */
export function Spares() {
  const { stick, mayWrite } = useBenchContext();
  const { sheet } = stick;
  if (!mayWrite || sheet.bends.length === 0) return null;
  return (
    <div className="mt-2 text-[17px] leading-9">
      {t("spare.leave")} <Spare key={`B${sheet.spare?.reads}`} end="B" field="spare" now={sheet.spare} />{" "}
      {t("spare.and")} <Spare key={`A${sheet.spare_a?.reads}`} end="A" field="spare_a" now={sheet.spare_a} />
      <span className="block text-[15px] leading-snug text-soft">
        {sheet.advised_spare
          ? t("spare.advised", { advised_spare: sheet.advised_spare.reads })
          : t("spare.none_advised")}
        {sheet.spare_a && t("spare.marks_include")}
      </span>
    </div>
  );
}

interface SpareProps {
  end: "A" | "B";
  field: "spare" | "spare_a";
  now: Measure | null;
}

function Spare({ end, field, now }: SpareProps) {
  const { arrange } = useBenchContext();
  const [text, setText] = useState(now?.reads ?? "");
  return (
    <>
      <TapeField
        label={t("spare.label", { end })}
        value={text}
        read={{ written: now?.reads ?? "", inches: now?.inches ?? 0 }}
        onChange={setText}
      />{" "}
      {end === "B" ? t("spare.on_b") : t("spare.on_a")}{" "}
      {text.trim() !== (now?.reads ?? "") && (
        <Button
          className="min-h-11"
          aria-label={t("spare.set.label", { end })}
          onClick={() => arrange({ [field]: text.trim() || null })}
        >
          {t("spare.set")}
        </Button>
      )}
    </>
  );
}
