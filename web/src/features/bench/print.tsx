import type { Plan } from "@/api/types";
import { StickStrip } from "@/draw/strip";
import { EndMark } from "@/ui/icons";
import type { BenchStep } from "./bench-steps";
import type { MarkOf } from "./bench-view";

const PAPER_WIDTH = 680;
const HEADINGS = ["Bend", "Mark from A", "Reference", "Hook to", "Angle", "Turn", "Then it must read"];

/** The bench card on paper: every piece with its strip and its bends. */
export function BenchPrint({ plan, steps, markOf }: { plan: Plan; steps: BenchStep[]; markOf: MarkOf }) {
  return (
    <div className="hidden p-2 text-black print:block" data-theme="light">
      <h1 className="text-2xl font-bold">{plan.name || "Run"}</h1>
      <p className="tape">
        {plan.trade_size} {plan.material} · shoe {plan.shoe?.name} (deduct {plan.shoe?.deduct.reads}, gain{" "}
        {plan.shoe?.gain.reads}) · developed length {plan.developed_length?.reads}
      </p>
      {plan.pieces.map((piece) => (
        <section key={piece.number} className="mt-4 break-inside-avoid">
          <h2 className="tape text-lg font-bold">
            Piece {piece.number}: cut {piece.length.reads}. <EndMark end="A" size={16} /> {piece.end_a}{" "}
            <EndMark end="B" size={16} /> {piece.end_b}
          </h2>
          <StickStrip
            piece={piece}
            width={PAPER_WIDTH}
            longest={piece.length.inches}
            chosenBends={[]}
            onChoose={() => undefined}
            markFor={markOf}
          />
          <table className="tape w-full border-collapse text-left text-[13px]">
            <thead>
              <tr>
                {HEADINGS.map((heading) => (
                  <th key={heading} className="border border-black px-1.5 py-1">
                    {heading}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {steps.map(({ piece: own, bend, act }) => {
                if (own !== piece) return null;
                const mark = markOf(bend);
                const checks = (act?.bends.at(-1) === bend.number ? act : bend).checks;
                const cells = [
                  bend.number,
                  mark.at.reads,
                  mark.reference,
                  mark.hook,
                  bend.angle_reads,
                  act?.bends[0] === bend.number ? act.turn_says : bend.turn,
                ];
                return (
                  <tr key={bend.number}>
                    {cells.map((cell, i) => (
                      <td
                        key={HEADINGS[i]}
                        className={`border border-black px-1.5 py-1 align-top ${i === 1 ? "text-lg font-bold" : ""}`}
                      >
                        {cell}
                      </td>
                    ))}
                    <td className="border border-black px-1.5 py-1 align-top">
                      {checks.map((check) => `${check.says} ${check.reads}`).join("; ")}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </section>
      ))}
      <p className="mt-4 text-[13px]">
        Eye protection and gloves; foot firm on the heel; mind the swing. Ream every cut. Your local code, the
        inspector and a licensed electrician decide.
      </p>
    </div>
  );
}
