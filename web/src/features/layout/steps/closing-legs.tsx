import { useState } from "react";
import { useClosing } from "@/api/draft-queries";
import { usePlanned, useWork } from "@/features/layout/run-context";
import { Button } from "@/ui/button";
import { CheckBox } from "@/ui/check-box";
import { t } from "@/words/layout";
import { applyEdits } from "./apply-edits";

/** What the run misses its box by, put on the legs that a person doubts: shown before it is taken. */
export function ClosingLegs() {
  const { plan } = usePlanned();
  const { mayWrite } = useWork();
  const [open, setOpen] = useState(false);
  if (!mayWrite || !plan?.findings.some((finding) => finding.code === "closure")) return null;
  return (
    <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)} className="mt-1">
      <summary className="min-h-11 cursor-pointer content-center font-semibold">{t("closing.share")}</summary>
      {open && <Legs />}
    </details>
  );
}

function Legs() {
  const { draft, edit } = useWork();
  const [legs, setLegs] = useState<string[]>([]);
  const closing = useClosing(draft.document, legs).data;
  if (!closing) return null;
  const { fix } = closing;
  return (
    <fieldset className="tape">
      <legend className="sr-only">{t("closing.legs")}</legend>
      {closing.legs.map((leg) => {
        const chosen = legs.includes(leg.place);
        return (
          <CheckBox
            key={leg.place}
            checked={chosen}
            onCheck={(now) => setLegs(now ? [...legs, leg.place] : legs.filter((one) => one !== leg.place))}
          >
            {leg.called[0]?.toUpperCase()}
            {leg.called.slice(1)}, {leg.at.reads}
            {chosen && leg.by && (
              <strong>
                {" "}
                {leg.longer ? "+" : "−"}
                {leg.by.reads}
              </strong>
            )}
          </CheckBox>
        );
      })}
      <p className="mt-1 text-[15px] text-soft">
        {t("closing.misses", {
          misses: closing.misses.reads,
          detail: fix ? t("closing.then", { left: closing.left.reads }) : `. ${closing.why_not}`,
        })}
      </p>
      {fix && (
        <Button
          className="mt-1.5 border-accent! text-[15px] text-accent!"
          onClick={() => edit(applyEdits(draft.document, fix.edits), "")}
        >
          {fix.says}
        </Button>
      )}
    </fieldset>
  );
}
