import { useEffect, useMemo, useState } from "react";
import { useLocation } from "react-router";
import { useMe } from "@/api/queries";
import { Button } from "@/ui/button";
import { t } from "@/words/shell";
import { goOn, leaveTour, useTour } from "./tour-place";
import { type Stop, stopsFor } from "./tour-stops";

/** The tour: says what to do next, points at it, and goes on once it is done. One can leave it at any time. */
export function Tour() {
  const at = useTour();
  const { pathname } = useLocation();
  const me = useMe().data;
  const stops = useMemo(() => stopsFor(me?.role !== "viewer"), [me?.role]);
  const stop = at === null ? undefined : stops[at];
  const isHere = stop?.at.test(pathname) ?? false;
  const isThere = usePointer(isHere ? stop : undefined, at ?? 0);
  const says = isThere ? stop?.says : (stop?.absent ?? stop?.says);
  if (at === null) return null;

  return (
    <aside
      aria-label={t("tour.title")}
      className="sticky top-0 z-30 border-b border-accent bg-tint px-4 py-3 print:hidden"
    >
      <div className="mx-auto flex max-w-5xl flex-wrap items-center gap-x-4 gap-y-2">
        <p className="min-w-0 flex-1 basis-64 text-[17px] max-sm:basis-full" role="status">
          {stop && <strong className="mr-2">{t("tour.of", { at: at + 1, stops: stops.length })}</strong>}
          {!stop ? t("tour.over") : isHere ? says : t("tour.goes_on", { view: stop.view })}
        </p>
        {stop && isHere && (
          <Button className="min-h-11" onClick={() => goOn(at)}>
            {t("tour.next")}
          </Button>
        )}
        <Button look={stop ? "quiet" : "main"} className="min-h-11" onClick={leaveTour}>
          {stop ? t("tour.leave") : t("tour.done")}
        </Button>
      </div>
    </aside>
  );
}

const POINTED = "data-pointed";

/** What is to be pointed at comes to the page within so long, or is not there. */
const PATIENCE = 2500;

/**
 * Marks what a stop points at, also where it comes to the page later, and goes on once the person has done it. False:
 * there is nothing to point at.
 */
function usePointer(stop: Stop | undefined, at: number): boolean {
  const [isThere, setThere] = useState(true);
  useEffect(() => {
    if (!stop) return;
    let pointed: Element | null = null;
    const point = () => {
      if (pointed?.isConnected) return;
      pointed = document.querySelector(stop.point);
      if (!pointed) return;
      setThere(true);
      pointed.setAttribute(POINTED, "");
      pointed.scrollIntoView({ block: "center" });
      // Who comes by keys is there at once.
      if (
        pointed instanceof HTMLElement &&
        document.activeElement?.matches("body, main, aside button:focus-visible")
      )
        pointed.focus({ preventScroll: true });
    };
    const missed = setTimeout(() => setThere(pointed !== null), PATIENCE);
    point();
    const comes = new MutationObserver(point);
    comes.observe(document.body, { childList: true, subtree: true });
    const done = (event: Event) => {
      if (event.target instanceof Node && pointed?.contains(event.target)) goOn(at);
    };
    // Before the page itself hears of it, which may take away what was touched.
    if (stop.done) document.addEventListener(stop.done, done, { capture: true });
    return () => {
      clearTimeout(missed);
      setThere(true);
      comes.disconnect();
      if (stop.done) document.removeEventListener(stop.done, done, { capture: true });
      pointed?.removeAttribute(POINTED);
    };
  }, [stop, at]);
  return isThere;
}
