import type { BringLine } from "@/api/types";
import { things } from "@/trade/counts";
import { t } from "@/words/stock";

/** What to bring for the job. */
export function OrderList({ jobId, lines }: { jobId: number; lines: BringLine[] }) {
  if (lines.length === 0) return null;
  return (
    <section aria-label={t("bring.title")} className="mt-6 border-t border-line pt-3">
      <div className="flex items-center gap-3">
        <h2 className="text-xl font-bold">{t("bring.title")}</h2>
        <a href={`/api/jobs/${jobId}/cutting/order.csv`} className="underline">
          {t("csv")}
        </a>
      </div>
      <ul className="tape mt-1 grid gap-x-6 sm:grid-cols-2">
        {lines.map((line) => (
          <li key={Object.values(line).join()} className="flex gap-2 border-b border-line py-1">
            <span>
              <strong>{things(line.count, line.what)}</strong> {line.trade_size} {line.material}{" "}
              {line.length && t("bring.long", { line: line.length })}
              {line.note && <span className="text-soft"> {line.note}</span>}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
