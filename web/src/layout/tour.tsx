import { useEffect } from "react";
import { useLocation } from "react-router";
import { Button } from "@/ui/button";
import { t } from "@/words/shell";
import { goOn, leaveTour, useTour } from "./tour-place";
import { STOPS, type Stop } from "./tour-stops";

/** The tour: says what to do next, points at it, and goes on once it is done. One can leave it at any time. */
export function Tour() {
  const at = useTour();
  const { pathname } = useLocation();
  const stop = at === null ? undefined : STOPS[at];
  const isHere = stop?.at.test(pathname) ?? false;
  usePointer(isHere ? stop : undefined, at ?? 0);
  if (at === null) return null;

  return (
    <aside
      aria-label={t("tour")}
      className="sticky top-0 z-30 border-b border-accent bg-tint px-4 py-3 print:hidden"
    >
      <div className="mx-auto flex max-w-5xl flex-wrap items-center gap-x-4 gap-y-2">
        <p className="min-w-0 flex-1 basis-64 text-[17px] max-sm:basis-full" role="status">
          {stop && <strong className="mr-2">{t("tourOf", { at: at + 1, stops: STOPS.length })}</strong>}
          {!stop ? t("tourIsOver") : isHere ? stop.says : t("tourGoesOnIn", { view: stop.view })}
        </p>
        {stop && isHere && (
          <Button className="min-h-11" onClick={() => goOn(at)}>
            {t("next")}
          </Button>
        )}
        <Button look={stop ? "quiet" : "main"} className="min-h-11" onClick={leaveTour}>
          {stop ? t("leaveTheTour") : t("done")}
        </Button>
      </div>
    </aside>
  );
}

const POINTED = "data-pointed";

/** Marks what a stop points at, also where it comes to the page later, and goes on once the person has done it. */
function usePointer(stop: Stop | undefined, at: number) {
  useEffect(() => {
    if (!stop) return;
    let pointed: Element | null = null;
    const point = () => {
      if (pointed?.isConnected) return;
      pointed = document.querySelector(stop.point);
      pointed?.setAttribute(POINTED, "");
      pointed?.scrollIntoView({ block: "center" });
    };
    point();
    const comes = new MutationObserver(point);
    comes.observe(document.body, { childList: true, subtree: true });
    const done = (event: Event) => {
      if (event.target instanceof Node && pointed?.contains(event.target)) goOn(at);
    };
    // Before the page itself hears of it, which may take away what was touched.
    if (stop.done) document.addEventListener(stop.done, done, { capture: true });
    return () => {
      comes.disconnect();
      if (stop.done) document.removeEventListener(stop.done, done, { capture: true });
      pointed?.removeAttribute(POINTED);
    };
  }, [stop, at]);
}
