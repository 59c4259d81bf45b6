import { useState } from "react";
import type { Measure } from "@/api/types";
import { Button } from "@/ui/button";
import { TapeField } from "@/ui/tape-field";
import { useBenchContext } from "./bench-context";

/** Cut first, or bend long and cut after: both are normal; which is advised follows from the expected errors. */
export function Spares() {
  const { stick, mayWrite } = useBenchContext();
  const { sheet } = stick;
  if (!mayWrite || sheet.bends.length === 0) return null;
  return (
    <div className="mt-2 text-[17px] leading-9">
      Leave <Spare key={`B${sheet.spare?.reads}`} end="B" field="spare" now={sheet.spare} /> and{" "}
      <Spare key={`A${sheet.spare_a?.reads}`} end="A" field="spare_a" now={sheet.spare_a} />
      <span className="block text-[15px] leading-snug text-soft">
        {sheet.advised_spare
          ? `Advised here: ${sheet.advised_spare.reads} on end B, cut after dry-fitting, as the bends before it add up their errors.`
          : "Advised here: none; cut it first."}
        {sheet.spare_a && " All marks count what is left on end A."}
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
        label={`Spare on end ${end}`}
        value={text}
        read={{ written: now?.reads ?? "", inches: now?.inches ?? 0 }}
        onChange={setText}
      />{" "}
      {end === "B" ? "to spare on end B" : "on end A"}{" "}
      {text.trim() !== (now?.reads ?? "") && (
        <Button
          className="min-h-11"
          aria-label={`Set the spare on end ${end}`}
          onClick={() => arrange({ [field]: text.trim() || null })}
        >
          Set
        </Button>
      )}
    </>
  );
}
