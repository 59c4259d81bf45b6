import { useState } from "react";
import { useLocation } from "react-router";
import { Button } from "@/ui/button";
import { t } from "@/words/shell";
import { helpAt } from "./help-texts";
import { startTour, useTour } from "./tour-place";

const KEY = "crelda.help";
/** Stands for all views: whoever left the tour is told nothing more by itself. */
const ALL = "all";

function seen(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? "[]");
    return Array.isArray(kept) ? kept.filter((one) => typeof one === "string") : [];
  } catch {
    return [];
  }
}

const remember = (view: string) => localStorage.setItem(KEY, JSON.stringify([...new Set([...seen(), view])]));

interface Props {
  /** Asked for in the menu; else it comes by itself where somebody is for the first time. */
  asked: boolean;
  onClose: () => void;
}

/** What is done here: shown on a first visit to a view, and whenever it is asked for. */
export function Help({ asked, onClose }: Props) {
  const help = helpAt(useLocation().pathname);
  return help ? <HelpCard key={help.view} help={help} asked={asked} onClose={onClose} /> : null;
}

function HelpCard({ help, asked, onClose }: Props & { help: NonNullable<ReturnType<typeof helpAt>> }) {
  const tour = useTour();
  const [first, setFirst] = useState(() => !seen().some((one) => one === help.view || one === ALL));
  const [opened, setOpened] = useState(false);
  if (!asked && (!first || tour !== null)) return null;
  const isWhole = asked || opened;
  const close = (view: string) => {
    remember(view);
    setFirst(false);
    onClose();
  };
  return (
    <aside
      aria-label={t("help.of", { title: help.title })}
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-accent bg-tint px-4 py-1 print:hidden"
    >
      <p className="min-w-0 flex-1 basis-60 truncate">
        <strong>{help.title}.</strong> {!isWhole && help.says[0]}
      </p>
      <span className="flex flex-wrap gap-1">
        {!asked && (
          <Button look="quiet" className="min-h-11" aria-expanded={opened} onClick={() => setOpened(!opened)}>
            {opened ? t("frame.less") : t("frame.more")}
          </Button>
        )}
        {help.view === "jobs" && (
          <Button
            className="min-h-11"
            onClick={() => {
              startTour();
              onClose();
            }}
          >
            {t("tour.begin")}
          </Button>
        )}
        <Button className="min-h-11" onClick={() => close(help.view)}>
          {t("help.got_it")}
        </Button>
      </span>
      {isWhole && (
        <div className="basis-full pb-2">
          {help.says.map((line) => (
            <p key={line} className="mt-1 max-w-[80ch]">
              {line}
            </p>
          ))}
          {help.next && <p className="mt-1 font-semibold">{help.next}</p>}
          {first && !asked && (
            <Button look="quiet" className="mt-1 min-h-11 px-0!" onClick={() => close(ALL)}>
              {t("help.no_more")}
            </Button>
          )}
        </div>
      )}
    </aside>
  );
}
