import { useCompared } from "@/api/draft-queries";
import type { RunDocument } from "@/api/types";
import { t } from "@/words/layout";

interface Props {
  mine: RunDocument;
  theirs: RunDocument | undefined;
  names: [string, string];
}

/** Two versions of a run side by side, as field notes; what differs stands out. */
export function Compared({ mine, theirs, names }: Props) {
  const rows = useCompared(mine, theirs).data;
  if (!rows) return null;
  const differing = rows.filter((row) => !row.same);
  if (!differing.length) return <p className="text-soft">{t("compare.same")}</p>;
  return (
    <table className="w-full max-w-4xl table-fixed border-collapse text-left">
      <thead>
        <tr className="text-[15px] text-soft">
          {names.map((name) => (
            <th key={name} scope="col" className="px-2 py-1 font-semibold">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody className="tape">
        {differing.map((row, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows have nothing else to be known by
          <tr key={at} className="border-t border-line/60 align-top">
            <td className="bg-tint px-2 py-1 wrap-anywhere">{row.mine ?? "—"}</td>
            <td className="border-l-4 border-paper bg-tint px-2 py-1 wrap-anywhere">{row.theirs ?? "—"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
