import type { ReactNode } from "react";
import type { Measure } from "@/api/types";
import { needsNoSaw } from "@/trade/saw";
import { useSize } from "@/ui/use-size";
import { t } from "@/words/stock";

export interface DrawnCut {
  key: string;
  run_name: string;
  piece: number;
  length: Measure;
  start: Measure;
  end: Measure;
  done?: boolean;
}

export interface DrawnBar {
  name: string;
  about: string;
  length: Measure;
  square?: Measure | null | undefined;
  cuts: DrawnCut[];
  left: string;
}

interface Props {
  bar: DrawnBar;
  longest: number;
  /** Pieces whose names have no room on the bar are named beneath. */
  captions?: boolean;
  /** The kind of pipe, where bars of several are named alike. */
  kind?: string;
  children?: ReactNode;
}

const TOP = 4;
const HEIGHT = 40;
const LEFT = 0;
// About how wide a letter of a name is, and what stands before the name.
const [LETTER, BEFORE_NAME] = [8.8, 84];
// The same of what is said of the saw, and how far its rows are apart.
const [DIGIT, ROW] = [8, 18];

const nameOf = (cut: DrawnCut) => t("cut.called", { run_name: cut.run_name, piece: cut.piece });
const isNamed = (cut: DrawnCut, scale: number) =>
  cut.length.inches * scale >= BEFORE_NAME + nameOf(cut).length * LETTER;

/** One source to scale: its cuts in order, where the saw goes, and what is left. */
export function CutBar({ bar, longest, captions = false, kind, children }: Props) {
  const [ref, size] = useSize<HTMLDivElement>();
  const scale = size.width / longest;
  const length = bar.length.inches * scale;
  const used = bar.cuts.at(-1)?.end.inches ?? 0;
  const isWhole = (cut: DrawnCut) => needsNoSaw(cut, bar);
  const labels = sawLabels(
    bar.cuts.filter((cut) => !isWhole(cut)),
    scale,
    size.width,
  );
  const rows = Math.max(0, ...labels.map((label) => label.row + 1));
  return (
    <section aria-label={[bar.name, bar.length.reads, kind].filter(Boolean).join(", ")} className="mt-2.5">
      <h4 className="tape flex min-h-8 flex-wrap items-center gap-x-2 text-base text-soft">
        <strong className="text-lg text-ink">{bar.name}</strong>{" "}
        {t("cut.bar", { bar: bar.length.reads, about: bar.about })}
        {children}
      </h4>
      <div ref={ref}>
        {size.width > 0 && (
          <svg
            width={size.width}
            height={rows ? 54 + rows * ROW : 52}
            role="img"
            aria-label={bar.cuts
              .map((cut) => t("cut.for", { cut: cut.length.reads, run_name: cut.run_name }))
              .join(", ")}
          >
            <rect
              x={LEFT + 1}
              y={TOP}
              width={Math.max(length - 2, 1)}
              height={HEIGHT}
              fill="none"
              stroke="var(--pipe-edge)"
              strokeWidth="1.5"
              strokeDasharray="4 4"
            />
            {bar.cuts.map((cut) => (
              <CutPart key={cut.key} cut={cut} scale={scale} />
            ))}
            <Left words={bar.left} from={used * scale} to={length} />
            {labels.map((label) => (
              <SawMark key={label.cut.key} label={label} />
            ))}
          </svg>
        )}
      </div>
      {captions && <Captions cuts={bar.cuts.filter((cut) => !isNamed(cut, scale))} />}
    </section>
  );
}

function Captions({ cuts }: { cuts: DrawnCut[] }) {
  if (cuts.length === 0) return null;
  return (
    <p className="tape -mt-1 text-[15px]">
      {cuts.map((cut, at) => (
        <span key={cut.key}>
          {at > 0 && "; "}
          <strong>{cut.length.reads}</strong> {nameOf(cut)}
        </span>
      ))}
    </p>
  );
}

function CutPart({ cut, scale }: { cut: DrawnCut; scale: number }) {
  const [x, width] = [cut.start.inches * scale, cut.length.inches * scale];
  return (
    <g>
      <rect
        x={x + 1}
        y={TOP}
        width={Math.max(width - 2, 1)}
        height={HEIGHT}
        fill={cut.done ? "var(--tint)" : "var(--to-cut)"}
        stroke="var(--pipe-edge)"
        strokeWidth="1.5"
      />
      <rect
        x={x + 2}
        y={TOP + 6}
        width={Math.max(width - 4, 1)}
        height="5"
        fill="var(--pipe-light)"
        opacity={cut.done ? 0.15 : 0.7}
      />
      <svg x={x + 6} y={TOP} width={Math.max(width - 10, 1)} height={HEIGHT} aria-hidden="true">
        <text x="0" y="28" fontSize="17" fill={cut.done ? "var(--ink)" : "var(--on-to-cut)"} className="tape">
          <tspan fontWeight="700" fontSize="19">
            {cut.length.reads}
          </tspan>
          {isNamed(cut, scale) && <tspan dx="10">{nameOf(cut)}</tspan>}
        </text>
      </svg>
    </g>
  );
}

interface SawLabel {
  cut: DrawnCut;
  x: number;
  toLeft: boolean;
  row: number;
}

/** Where the saw goes, each told in the first row beneath in which it stands clear of the others. */
export function sawLabels(cuts: DrawnCut[], scale: number, limit: number): SawLabel[] {
  const ends: number[] = [];
  return cuts.map((cut) => {
    const x = cut.end.inches * scale;
    const width = t("cut.saw_at", { end: cut.end.reads }).length * DIGIT;
    const toLeft = x + width > limit;
    const [from, to] = toLeft ? [x - 4 - width, x - 4] : [x + 4, x + 4 + width];
    const clear = ends.findIndex((end) => end <= from);
    const row = clear < 0 ? ends.length : clear;
    ends[row] = to;
    return { cut, x, toLeft, row };
  });
}

function SawMark({ label: { cut, x, toLeft, row } }: { label: SawLabel }) {
  return (
    <g>
      <line x1={x} x2={x} y1={TOP - 3} y2={TOP + HEIGHT + 8} stroke="var(--accent)" strokeWidth="2.5" />
      <text
        x={toLeft ? x - 4 : x + 4}
        y={TOP + HEIGHT + 20 + row * ROW}
        textAnchor={toLeft ? "end" : "start"}
        fontSize="15"
        fill="var(--ink)"
        className="tape"
      >
        {t("cut.saw_at", { end: cut.end.reads })}
      </text>
    </g>
  );
}

function Left({ words, from, to }: { words: string; from: number; to: number }) {
  if (!words || to - from < words.length * 8.2) return null;
  return (
    <text x={from + 12} y={TOP + 26} fontSize="16" fill="var(--soft)" className="tape">
      {words}
    </text>
  );
}
