import { useEffect } from "react";
import { Link } from "react-router";
import { isBegunHere } from "@/api/own-numbers";
import { chooseMeasure, useIsPhone } from "@/features/layout/measure/measure-choice";
import { Button } from "@/ui/button";
import { PrintIcon, RedoIcon, UndoIcon } from "@/ui/icons";
import { t } from "@/words/layout";
import { type Side, useFocus, useMarksCheck, useWork } from "./run-context";

const SIDES: { side: Exclude<Side, null>; says: string; name?: string }[] = [
  { side: "note", says: t("about.note"), name: t("panel.note") },
  { side: "rack", says: t("tool.parallel"), name: t("tool.rack") },
  { side: "marks", says: t("tool.marks"), name: "Check marks" },
  { side: "history", says: t("panel.history") },
  { side: "about", says: t("tool.about") },
];

// What the server keeps beside a run.
const WITH_THE_SERVER = new Set(["history", "about"]);

/** Over the list: what else can be opened beside it, undo and redo. */
export function Toolbar() {
  const { draft, send, mayWrite, run } = useWork();
  const { side, open } = useFocus();
  const { setLaid, setJudged } = useMarksCheck();

  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      const key = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || !["z", "y"].includes(key) || event.defaultPrevented) return;
      event.preventDefault();
      send({ type: key === "y" || event.shiftKey ? "redo" : "undo" });
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [send]);

  function toggle(next: Exclude<Side, null>) {
    setLaid(null);
    setJudged(null);
    open(side === next ? null : next);
  }

  const isPhone = useIsPhone();
  return (
    <div className="flex flex-wrap items-center gap-x-0.5 border-b border-line px-1.5 py-1">
      <h1 className="sr-only">{t("tool.layout")}</h1>
      {SIDES.filter((one) => !(isBegunHere(run.id) && WITH_THE_SERVER.has(one.side))).map((one) => (
        <Button
          key={one.side}
          look="quiet"
          aria-label={one.name}
          aria-pressed={side === one.side}
          className={`px-1! ${side === one.side ? "bg-tint text-ink!" : ""}`}
          onClick={() => toggle(one.side)}
        >
          {one.says}
        </Button>
      ))}
      {isPhone && mayWrite && (
        <Button look="quiet" className="px-1!" onClick={() => chooseMeasure("guided")}>
          {t("guided.open")}
        </Button>
      )}
      <Link
        to="../sheet"
        aria-label={t("sheet.title")}
        title={t("sheet.title")}
        className="ml-auto inline-flex min-h-9 items-center rounded-md px-1 text-soft hover:bg-well hover:text-ink"
      >
        <PrintIcon />
      </Link>
      {mayWrite ? (
        <span className="flex">
          <Button
            look="quiet"
            className="px-1!"
            aria-label={t("tool.undo")}
            disabled={!draft.past.length}
            onClick={() => send({ type: "undo" })}
          >
            <UndoIcon />
          </Button>
          <Button
            look="quiet"
            className="px-1!"
            aria-label={t("tool.redo")}
            disabled={!draft.future.length}
            onClick={() => send({ type: "redo" })}
          >
            <RedoIcon />
          </Button>
        </span>
      ) : (
        <span className="w-full text-[15px] text-soft">{t("tool.view_only")}</span>
      )}
    </div>
  );
}
