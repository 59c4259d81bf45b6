import type { Cutting, TakenBar } from "@/api/types";
import { beginsAt, needsNoSaw, wholeOrRest } from "@/trade/saw";
import { t } from "@/words/stock";
import { StopSettings } from "./stop-settings";

const COLUMNS = [
  ["", "w-[5%]"],
  [t("cut.do"), "w-[11%]"],
  [t("sheet.saw_at"), "w-[14%]"],
  [t("sheet.piece"), "w-[28%]"],
  [t("sheet.end_a"), "w-[21%]"],
  [t("sheet.end_b"), "w-[21%]"],
] as const;

/** The cut list that was taken, on paper: a table a source, in the order of the walk along the pile. */
export function CutListPrint({ job, cutting }: { job: string; cutting: Cutting }) {
  return (
    <div className="hidden p-2 text-black print:block" data-theme="light">
      <h1 className="text-2xl font-bold">{t("sheet.title", { job })}</h1>
      <p className="text-sm">{t("sheet.how")}</p>
      <StopSettings stop={cutting.taken.stop} named />
      {cutting.taken.bars
        .filter((bar) => bar.cuts.length > 0)
        .map((bar) => (
          <section key={bar.id} className="mt-3 break-inside-avoid">
            <h2 className="tape text-lg font-bold">
              {bar.name}, {bar.trade_size} {bar.material}, {bar.length.reads}
              {bar.place && `, ${bar.place}`}
              {beginsAt(bar)}
            </h2>
            <table className="tape w-full table-fixed border-collapse text-left text-sm">
              <thead>
                <tr>
                  {COLUMNS.map(([heading, width]) => (
                    <th key={heading} className={`border border-black px-1.5 py-0.5 ${width}`}>
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
                      needsNoSaw(cut, bar) ? wholeOrRest(cut) : cut.end.reads,
                      `${cut.run_name}, ${cut.piece}`,
                      cut.end_a,
                      cut.end_b,
                    ].map((cell, column) => (
                      <td key={COLUMNS[column]?.[0]} className="border border-black px-1.5 py-0.5">
                        {cell}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="tape text-sm">{t("sheet.left", { left: left(bar) })}</p>
          </section>
        ))}
    </div>
  );
}

function left(bar: TakenBar): string {
  if (bar.offcut && !bar.offcut_tag) return t("bar.to_rack_untagged", { offcut: bar.offcut.reads });
  if (bar.offcut) return t("sheet.to_rack", { offcut: bar.offcut.reads, offcut_tag: bar.offcut_tag });
  return bar.cuts.some((cut) => needsNoSaw(cut, bar)) ? "nothing" : "waste";
}
