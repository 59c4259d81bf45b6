import type { ReactNode } from "react";
import type { CutKind, ListedSource } from "@/api/types";
import { things } from "@/trade/counts";
import { beginsAt } from "@/trade/saw";
import { t } from "@/words/stock";
import { CutBar, type DrawnBar } from "./cut-bar";

/** A kind of pipe as people call it. */
export const nameOf = (kind: Pick<CutKind, "trade_size" | "material">) =>
  `${kind.trade_size} ${kind.material}`;

interface Props {
  kind: CutKind;
  sources: ListedSource[];
  hidden?: (source: ListedSource) => boolean;
  /** What can be done with a source. */
  more?: (source: ListedSource) => ReactNode;
}

/** What is cut from each bar, in the order of the walk along the pile. */
export function Sources({ kind, sources, hidden, more }: Props) {
  const longest = Math.max(1, ...sources.map((source) => source.length.inches));
  return sources.map((source, at) =>
    hidden?.(source) ? null : (
      <CutBar
        key={source.key}
        bar={drawn(source, newBefore(sources, at))}
        longest={longest}
        captions
        kind={nameOf(kind)}
      >
        {more?.(source)}
      </CutBar>
    ),
  );
}

const newBefore = (sources: ListedSource[], at: number) =>
  sources.slice(0, at).filter((source) => !source.scrap && !source.bought).length;

function drawn(source: ListedSource, number: number): DrawnBar {
  const threads = source.threads ? t("plan.thread", { ends: things(source.threads, "end") }) : "";
  return {
    name: source.scrap ?? source.bought ?? `New stick ${number + 1}`,
    about: `${source.place ? `, ${source.place}` : ""}${beginsAt(source)}${threads}`,
    length: source.length,
    square: source.square,
    cuts: source.cuts.map((cut) => ({ key: `${cut.run}.${cut.piece}`, ...cut })),
    left: source.keep
      ? t("bar.to_rack", { left: source.left.reads })
      : source.left.inches > 0
        ? t("plan.waste", { length: source.left.reads })
        : "",
  };
}
