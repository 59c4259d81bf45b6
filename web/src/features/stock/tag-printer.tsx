import { useLabels, usePrintLabels } from "@/api/stock-queries";
import type { Cutting } from "@/api/types";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/stock";

const LETTERS = 40;
const short = (line: string) => line.slice(0, LETTERS);

/** The simulated tag printer: labels for pieces and offcuts, and what came out of it. */
export function TagPrinter({ cutting, mayWrite }: { cutting: Cutting; mayWrite: boolean }) {
  const print = usePrintLabels();
  const labels = useLabels();
  const wanted = labelsFor(cutting);
  if (wanted.length === 0 && !labels.data?.length) return null;
  return (
    <section aria-label={t("printer.title")} className="mt-6 border-t border-line pt-3">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-xl font-bold">{t("printer.title")}</h2>
        <span className="text-[15px] text-soft">{t("printer.simulated")}</span>
        {mayWrite && wanted.length > 0 && (
          <Button disabled={print.isPending} onClick={() => print.mutate(wanted)}>
            {t("printer.print", { wanted: wanted.length })}
          </Button>
        )}
      </div>
      {print.error && <Notice severity="stop">{print.error.message}</Notice>}
      <ul className="mt-2 flex flex-wrap gap-2">
        {labels.data?.slice(0, 24).map((label) => (
          <li key={label.id}>
            <a href={`/api/devices/tag-printer/${label.id}.svg`} target="_blank" rel="noreferrer">
              <img
                src={`/api/devices/tag-printer/${label.id}.svg`}
                alt={t("printer.label", { lines: label.lines.join(", ") })}
                width="190"
                height="95"
              />
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A label for each piece that is to be cut or was, and for each offcut. */
function labelsFor(cutting: Cutting): string[][] {
  return cutting.taken.bars.flatMap((bar) => {
    const pipe = `${bar.trade_size} ${bar.material}`;
    const pieces = bar.cuts.map((cut) => [
      short(cut.length.reads),
      short(`${pipe}, ${cut.run_name} ${cut.piece}`),
      short(`A ${cut.end_a}`),
      short(`B ${cut.end_b}`),
    ]);
    const offcut =
      bar.offcut && bar.offcut_tag
        ? [[bar.offcut_tag, `${bar.offcut.reads}, ${pipe}`, t("cut.of_bar", { bar: bar.name })]]
        : [];
    return [...pieces, ...offcut];
  });
}
