import type { JobTakes, Labour, Materials, Work } from "@/api/types";
import { things } from "@/trade/counts";
import { Notice } from "@/ui/notice";
import { t } from "@/words/estimate";
import { countOf, minutesOf, money } from "./money";
import { Spread } from "./spread";

/** A job's materials and its labour, line by line, and what they come to. */
export function WhatItTakes({ job }: { job: JobTakes }) {
  return (
    <section aria-label={t("takes.title")} className="flex flex-col gap-4">
      <h2 className="text-xl font-bold">{t("takes.title")}</h2>
      {job.left_out.length > 0 && (
        <Notice severity="caution">{t("takes.left_out", { runs: job.left_out.join(", ") })}</Notice>
      )}
      <div className="grid items-start gap-4 lg:grid-cols-2">
        <MaterialsTable materials={job.materials} />
        <LabourTable labour={job.labour} />
      </div>
      <p className="text-xl" data-testid="total">
        {job.total === null ? (
          t("takes.materials_alone", { total: money(job.materials.total) })
        ) : (
          <strong>{t("takes.total", { total: money(job.total) })}</strong>
        )}
      </p>
      <p className="text-[15px] text-soft">{t("takes.estimate")}</p>
    </section>
  );
}

function MaterialsTable({ materials }: { materials: Materials }) {
  return (
    <div className="rounded-lg border border-line bg-paper p-3">
      <h3 className="text-lg font-bold">{t("materials.title")}</h3>
      <table className="tape w-full text-[17px]">
        <tbody>
          {materials.lines.map(({ line, each, total }) => (
            <tr key={Object.values(line).join()} className="border-b border-line/60 align-top">
              <td className="py-1.5 pr-3">
                <strong>{things(line.count, line.what)}</strong> {line.trade_size} {line.material}{" "}
                {line.length}
                {line.note && <span className="block text-[15px] text-soft">{line.note}</span>}
              </td>
              <td className="py-1.5 pr-3 text-right whitespace-nowrap text-soft">
                {each !== null && money(each)}
              </td>
              <td className="py-1.5 text-right whitespace-nowrap">
                {total === null ? <span className="text-soft">{t("materials.no_price")}</span> : money(total)}
              </td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td className="py-2 font-bold">{t("materials.total")}</td>
            <td />
            <td className="py-2 text-right font-bold">{money(materials.total)}</td>
          </tr>
        </tfoot>
      </table>
      {materials.unpriced > 0 && (
        <p className="text-[15px] text-soft">{t("materials.unpriced", { count: materials.unpriced })}</p>
      )}
    </div>
  );
}

export const WORKS: Record<Work, string> = {
  bend: t("work.bend"),
  cut: t("work.cut"),
  coupling: t("work.coupling"),
  strap: t("work.strap"),
  ten_feet: t("work.ten_feet"),
};

function LabourTable({ labour }: { labour: Labour }) {
  return (
    <div className="rounded-lg border border-line bg-paper p-3">
      <h3 className="text-lg font-bold">{t("labour.title")}</h3>
      <table className="tape w-full text-[17px]">
        <tbody>
          {labour.lines.map(({ work, count, each, minutes }) => (
            <tr key={work} className="border-b border-line/60">
              <td className="py-1.5 pr-3">
                <strong>{countOf(count)}</strong> {WORKS[work]}
              </td>
              <td className="py-1.5 pr-3 text-right whitespace-nowrap text-soft">
                {each !== null && t("labour.each", { each: countOf(each) })}
              </td>
              <td className="py-1.5 text-right whitespace-nowrap">
                {minutes === null ? (
                  <span className="text-soft">{t("labour.no_figure")}</span>
                ) : (
                  t("labour.min", { minutes: minutesOf(minutes) })
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="py-2 font-bold">
        <Spread labour={labour} />
      </p>
      {labour.cost !== null && <p>{t("labour.cost", { cost: money(labour.cost) })}</p>}
    </div>
  );
}
