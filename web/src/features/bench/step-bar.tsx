import { useState } from "react";
import { Button } from "@/ui/button";
import { BendTab, GoodIcon, StopIcon } from "@/ui/icons";
import { t } from "@/words/bench";
import { useBenchContext } from "./bench-context";
import { StickRail } from "./stick-rail";
import { judgedOf, screensOf } from "./stick-steps";

/** The screens of the stick side by side, for a narrow screen; the whole list opens beneath. */
export function StepBar() {
  const { bench, stick, at, go, waiting } = useBenchContext();
  const [open, setOpen] = useState(false);
  return (
    <div className="mb-2 lg:hidden">
      <p className="truncate pb-1 font-semibold sm:hidden">{bench.name || t("run.unnamed")}</p>
      <div className="flex items-center gap-2">
        <nav aria-label={t("steps.title")} className="flex min-w-0 flex-1 gap-1 overflow-x-auto">
          {screensOf(stick, at).map((screen) => {
            const bend = stick.sheet.bends.find((one) => one.number === screen);
            const judged = bend && judgedOf(bend, waiting.get(bend.number));
            return (
              <button
                key={screen}
                type="button"
                aria-current={screen === at ? "step" : undefined}
                onClick={() => go(screen)}
                className={`flex min-h-12 min-w-12 shrink-0 items-center justify-center gap-1 rounded-md border px-2 font-semibold ${screen === at ? "border-accent bg-tint" : "border-line bg-paper"}`}
              >
                {bend ? (
                  <BendTab number={bend.number} chosen={screen === at} />
                ) : screen === "cut" ? (
                  t("rail.cut")
                ) : (
                  t("fit.title")
                )}
                {judged &&
                  (judged.within ? <GoodIcon className="text-good" /> : <StopIcon className="text-stop" />)}
              </button>
            );
          })}
        </nav>
        <Button className="min-h-12" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? t("close") : t("card.order")}
        </Button>
      </div>
      {open && (
        <div className="mt-2 rounded-md border border-line bg-paper">
          <StickRail onChosen={() => setOpen(false)} />
        </div>
      )}
    </div>
  );
}
