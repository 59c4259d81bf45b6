import type { ReactNode } from "react";
import { Button } from "@/ui/button";
import { t } from "@/words/bench";
import { useBenchContext } from "./bench-context";
import { judgedOf, screensOf, shotsOf } from "./stick-steps";

/** To where the angle finder's reading is entered, which lies far down on a phone. */
function toTheReading() {
  const field = document.querySelector<HTMLElement>("[data-tour=reading] input");
  field?.scrollIntoView({ block: "center" });
  field?.focus({ preventScroll: true });
}

/** Back and on, under the thumb: at the bottom of a narrow screen, beneath the page on a wide one. */
export function Screens({ children }: { children?: ReactNode }) {
  const { stick, at, go, waiting, mayWrite } = useBenchContext();
  const screens = screensOf(stick, at);
  const here = screens.indexOf(at);
  const back = screens[here - 1];
  const bend = stick.sheet.bends.find((one) => one.number === at);
  const shot =
    bend?.sweep && shotsOf(stick, bend).find((one) => one.sweep?.shot === (bend.sweep?.shot ?? 0) + 1);
  const judged = bend && judgedOf(bend, waiting.get(bend.number));
  const next = shot?.number ?? screens[here + 1];
  return (
    <nav
      aria-label={t("screens.title")}
      className="fixed inset-x-0 bottom-0 z-10 flex gap-3 border-t border-line bg-paper p-3 lg:sticky lg:mt-auto lg:-mx-6 lg:px-6 lg:py-2"
    >
      <Button
        className="min-h-14 flex-1 text-lg lg:max-w-48"
        disabled={back === undefined}
        onClick={() => back !== undefined && go(back)}
      >
        {t("screens.back")}
      </Button>
      {bend && !judged && mayWrite && (
        <Button className="min-h-14 text-lg lg:hidden" onClick={toTheReading}>
          {t("entered.reading")}
        </Button>
      )}
      <span className="grow max-lg:hidden" />
      {children ?? (
        <Button
          look="main"
          className="min-h-14 flex-1 text-lg lg:max-w-56"
          disabled={next === undefined}
          onClick={() => next !== undefined && go(next)}
        >
          {shot
            ? t("screens.next_shot")
            : typeof next === "number"
              ? t("screens.next_bend")
              : t("screens.to_fitting")}
        </Button>
      )}
    </nav>
  );
}
