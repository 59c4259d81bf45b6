import { lazy, Suspense, useEffect, useRef } from "react";
import { Button } from "@/ui/button";
import { RemoveIcon } from "@/ui/icons";
import { t } from "@/words/layout";
import { useFocus, useMarksCheck } from "./run-context";

const NotePanel = lazy(() =>
  import("@/features/layout/note/note-panel").then((module) => ({ default: module.NotePanel })),
);
const Panel = lazy(() => import("./panels").then((module) => ({ default: module.Panel })));

const TITLES = {
  note: t("panel.note"),
  step: t("panel.ways"),
  rack: t("panel.rack"),
  marks: t("panel.marks"),
  history: t("panel.history"),
  about: t("panel.about"),
};

/** What lies open beside the list. */
export function SidePanel() {
  const { side, open } = useFocus();
  const { setLaid, setJudged } = useMarksCheck();
  const ref = useRef<HTMLElement>(null);

  // Where all stands in one column, what was opened is brought before the eye.
  useEffect(() => {
    if (side && matchMedia("(max-width: 63.99rem)").matches) ref.current?.scrollIntoView({ block: "start" });
  }, [side]);

  if (!side) return null;
  function close() {
    setLaid(null);
    setJudged(null);
    open(null);
  }
  return (
    <section
      ref={ref}
      aria-label={TITLES[side]}
      className="flex scroll-mt-[36dvh] shrink-0 flex-col border-line bg-paper max-lg:order-4 max-lg:border-t lg:w-[21rem] 2xl:w-[22rem] lg:border-r"
    >
      <header className="flex items-center border-b border-line py-1 pr-1 pl-3">
        <h2 className="text-lg font-bold">{TITLES[side]}</h2>
        <Button
          look="quiet"
          className="ml-auto"
          aria-label={t("panel.close", { panel: TITLES[side] })}
          onClick={close}
        >
          <RemoveIcon />
        </Button>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <Suspense fallback={<p className="p-3 text-soft">{t("picture.opening")}</p>}>
          {side === "note" ? <NotePanel /> : <Panel side={side} />}
        </Suspense>
      </div>
    </section>
  );
}
