import type { Plan } from "@/api/types";
import { BendTab, EndMark } from "@/ui/icons";
import type { BenchStep } from "./bench-steps";
import type { MarkOf } from "./bench-view";

interface Props {
  plan: Plan;
  steps: BenchStep[];
  current: number;
  markOf: MarkOf;
  onChoose: (bend: number) => void;
}

/** The bends in the order of bending, piece by piece. */
export function BendList({ plan, steps, current, markOf, onChoose }: Props) {
  return (
    <div>
      {plan.pieces.map((piece) => (
        <section
          key={piece.number}
          aria-label={`Piece ${piece.number}`}
          className="border-b border-line pb-1"
        >
          <h2 className="flex flex-wrap items-center gap-x-2 px-4 pt-3 pb-1 text-base text-soft">
            <strong className="text-ink">Piece {piece.number}</strong>
            <span className="tape">
              cut <strong className="text-ink">{piece.length.reads}</strong>
            </span>
            <span className="w-full">
              <EndMark end="A" size={22} /> {piece.end_a} <EndMark end="B" size={22} /> {piece.end_b}
            </span>
          </h2>
          {piece.bends.length === 0 && (
            <p className="px-4 pb-2 text-[15px] text-soft">No bends; cut and ream.</p>
          )}
          <ol>
            {steps.map(({ piece: own, bend }, at) => {
              if (own !== piece) return null;
              const mark = markOf(bend);
              const isCurrent = bend.number === current;
              return (
                <li key={bend.number}>
                  <button
                    type="button"
                    aria-current={isCurrent ? "step" : undefined}
                    onClick={() => onChoose(bend.number)}
                    className={`flex min-h-12 w-full items-center gap-3 border-l-4 px-3 text-left ${isCurrent ? "border-accent bg-tint" : "border-transparent hover:bg-well"}`}
                  >
                    <span className="tape w-9 text-[15px] font-semibold text-soft">{ordinal(at + 1)}</span>
                    <BendTab number={bend.number} chosen={isCurrent} />
                    <strong className="tape w-22 text-xl">{mark.at.reads}</strong>
                    <span className="text-[15px] text-soft">
                      {mark.reference} {mark.hook === "A" ? "◂" : "▸"}
                    </span>
                    <strong className="tape ml-auto text-lg">{bend.angle_reads}</strong>
                  </button>
                </li>
              );
            })}
          </ol>
        </section>
      ))}
    </div>
  );
}

const ENDINGS = new Intl.PluralRules("en-US", { type: "ordinal" });
const SUFFIXES: Record<string, string> = { one: "st", two: "nd", few: "rd", other: "th" };

/** The order of bending is told as 1st, 2nd, 3rd; a bend's number is its place along the pipe. */
export const ordinal = (at: number): string => `${at}${SUFFIXES[ENDINGS.select(at)]}`;
