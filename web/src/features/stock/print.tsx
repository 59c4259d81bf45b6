import type { Cutting } from "@/api/types";

const HEADINGS = ["", "Cut", "Saw at", "Run, piece", "End A", "End B"];

/** The cut list that was taken, on paper: a table a source, in the order of the walk along the pile. */
export function CutListPrint({ job, cutting }: { job: string; cutting: Cutting }) {
  return (
    <div className="hidden p-2 text-black print:block" data-theme="light">
      <h1 className="text-2xl font-bold">Cut list, {job}</h1>
      <p className="text-sm">
        Tape positions from the end of each source, blade counted; saw on the waste side. Eye protection,
        gloves; ream every cut.
      </p>
      {cutting.taken.bars
        .filter((bar) => bar.cuts.length > 0)
        .map((bar) => (
          <section key={bar.id} className="mt-3 break-inside-avoid">
            <h2 className="tape text-lg font-bold">
              {bar.name}, {bar.trade_size} {bar.material}, {bar.length.reads}
              {bar.place && `, ${bar.place}`}
            </h2>
            <table className="tape w-full border-collapse text-left text-sm">
              <thead>
                <tr>
                  {HEADINGS.map((heading) => (
                    <th key={heading} className="border border-black px-1.5 py-0.5">
                      {heading}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {bar.cuts.map((cut, at) => (
                  <tr key={cut.id}>
                    {[
                      at + 1,
                      cut.length.reads,
                      cut.end.reads,
                      `${cut.run_name}, ${cut.piece}`,
                      cut.end_a,
                      cut.end_b,
                    ].map((cell, column) => (
                      <td key={HEADINGS[column]} className="border border-black px-1.5 py-0.5">
                        {cell}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="tape text-sm">
              Left: {bar.offcut ? `${bar.offcut.reads}, tag ${bar.offcut_tag}, to the rack` : "waste"}
            </p>
          </section>
        ))}
    </div>
  );
}
