import { useContext, useState } from "react";
import { useAddScrapList, useReadScrapList } from "@/api/stock-queries";
import type { ReadScrapList } from "@/api/types";
import { toTape } from "@/draw/fractions";
import { things } from "@/trade/counts";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { TapeContext } from "@/ui/tape-field";
import { t } from "@/words/stock";

const MOST_SHOWN = 60;
const COLUMNS = [t("many.line"), t("many.pipe"), t("scrap.length"), t("many.count"), t("scrap.place")];

/** Many at once: a pasted list, or a CSV file. What was understood is shown first, and nothing is added until all is. */
export function AddMany() {
  const read = useReadScrapList();
  const add = useAddScrapList();
  const tape = useContext(TapeContext);
  const [text, setText] = useState("");
  const error = read.error ?? add.error;
  const change = (next: string) => {
    setText(next);
    read.reset();
    add.reset();
  };
  return (
    <details className="mt-3">
      <summary className="min-h-9 cursor-pointer font-bold">{t("many.title")}</summary>
      <label htmlFor="rack-list" className="text-[15px] text-soft">
        {t("many.how", { toTape: toTape(41.375, tape) })}
      </label>
      <textarea
        id="rack-list"
        rows={6}
        className="tape mt-1 w-full rounded-md border border-line bg-paper p-2"
        value={text}
        onChange={(event) => change(event.target.value)}
      />
      <div className="flex flex-wrap items-center gap-2">
        <Button disabled={read.isPending || !text.trim()} onClick={() => read.mutate({ text, tape })}>
          {t("many.read")}
        </Button>
        <input
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          aria-label={t("many.csv")}
          className="text-[15px]"
          onChange={async (event) => {
            const file = event.target.files?.[0];
            if (file) change(await file.text());
          }}
        />
      </div>
      {error && <Notice severity="stop">{error.message}</Notice>}
      {read.data && (
        <Understood
          read={read.data}
          adding={add.isPending}
          onAdd={() => add.mutate({ text, tape }, { onSuccess: () => change("") })}
        />
      )}
    </details>
  );
}

interface UnderstoodProps {
  read: ReadScrapList;
  adding: boolean;
  onAdd: () => void;
}

/** Each line as it was read, and those that could not be. */
function Understood({ read: { lines, faults, pieces }, adding, onAdd }: UnderstoodProps) {
  return (
    <section aria-label={t("many.as_read")} className="mt-2">
      {faults.length > 0 && (
        <Notice severity="stop">
          {t("many.faults")}
          <ul>
            {faults.slice(0, MOST_SHOWN).map(({ line, says }) => (
              <li key={line}>{t("many.line_says", { line, says })}</li>
            ))}
          </ul>
        </Notice>
      )}
      {lines.length > 0 && (
        <table className="tape mt-1 w-full text-left">
          <thead>
            <tr className="text-[15px] text-soft">
              {COLUMNS.map((column) => (
                <th key={column} scope="col" className="pr-3 font-normal">
                  {column}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {lines.slice(0, MOST_SHOWN).map((one) => (
              <tr key={one.line} className="border-t border-line/60">
                <td className="pr-3 text-soft">{one.line}</td>
                <td className="pr-3">
                  {one.trade_size} {one.material}
                </td>
                <td className="pr-3 font-semibold">{one.length}</td>
                <td className="pr-3">{one.count}</td>
                <td className="wrap-anywhere">{one.place}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {lines.length > MOST_SHOWN && (
        <p className="text-soft">{t("many.more", { more: lines.length - MOST_SHOWN })}</p>
      )}
      <Button
        look="main"
        className="mt-2 min-h-11"
        disabled={adding || faults.length > 0 || pieces === 0}
        onClick={onAdd}
      >
        {t("many.add", { pieces: things(pieces, "piece") })}
      </Button>
    </section>
  );
}
