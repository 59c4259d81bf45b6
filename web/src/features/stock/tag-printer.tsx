import { useMutation } from "@tanstack/react-query";
import type { Cutting } from "@/api/types";
import { print, useDevice } from "@/devices/hub";
import { labelFile } from "@/devices/label";
import { usePrinted } from "@/devices/printed";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/stock";

const LETTERS = 40;
const SHOWN = 24;
const short = (line: string) => line.slice(0, LETTERS);

/** Labels for pieces and offcuts on the label printer, and what came out of the simulated one. */
export function TagPrinter({ cutting, mayWrite }: { cutting: Cutting; mayWrite: boolean }) {
  const { way } = useDevice("printer");
  const printing = useMutation({ mutationFn: print, networkMode: "always" });
  const printed = usePrinted();
  const wanted = labelsFor(cutting);
  const shown = way === "simulated" ? printed.slice(0, SHOWN) : [];
  if (way === "none" || (wanted.length === 0 && !shown.length)) return null;
  return (
    <section aria-label={t("printer.title")} className="mt-6 border-t border-line pt-3">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-xl font-bold">{t("printer.title")}</h2>
        {way === "simulated" && <span className="text-[15px] text-soft">{t("printer.simulated")}</span>}
        {mayWrite && wanted.length > 0 && (
          <Button disabled={printing.isPending} onClick={() => printing.mutate(wanted)}>
            {t("printer.print", { wanted: wanted.length })}
          </Button>
        )}
      </div>
      {printing.error && <Notice severity="stop">{printing.error.message}</Notice>}
      <ul className="mt-2 flex flex-wrap gap-2">
        {shown.map((lines, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the same label may have been printed twice
          <li key={at}>
            <Printed lines={lines} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A label that was printed, to be kept as the file that a printer takes. */
function Printed({ lines }: { lines: string[] }) {
  const file = `data:image/svg+xml,${encodeURIComponent(labelFile(lines))}`;
  return (
    <a href={file} download={`${lines[0] ?? "label"}.svg`}>
      <img src={file} alt={t("printer.label", { lines: lines.join(", ") })} width="190" height="95" />
    </a>
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
