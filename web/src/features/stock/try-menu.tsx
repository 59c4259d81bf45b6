import { useContext } from "react";
import type { CutTerms, ListedSource, RunCouplings } from "@/api/types";
import { reads } from "@/draw/fractions";
import { Button } from "@/ui/button";
import { Menu, MenuItem } from "@/ui/menu";
import { TapeContext } from "@/ui/tape-field";
import { t } from "@/words/stock";

/** What a trial changes of the terms. */
export type More = (terms: CutTerms) => Partial<CutTerms>;

interface Props {
  source: ListedSource;
  places: RunCouplings[];
  onTry: (more: More) => void;
}

type Listed = ListedSource["cuts"][number];
const SIXTEENTHS = 16;

/** What may be tried with one source: leave it out, hold a piece to it, hold a coupling where it is. */
export function TryMenu({ source, places, onTry }: Props) {
  const { scrap } = source;
  const tape = useContext(TapeContext);
  const name = scrap ?? source.bought ?? t("try.new_stick");
  const hold = (cut: Listed) => {
    const pin = { run: cut.run, start: inches(cut.from_coupling), end: inches(cut.to_coupling), scrap };
    onTry((terms) => ({ pieces: [...(terms.pieces ?? []), pin] }));
  };
  const couple = (cut: Listed) =>
    onTry((terms) => ({
      couplings: [...(terms.couplings ?? []), { run: cut.run, at: inches(cut.to_coupling) }],
    }));
  return (
    <Menu trigger={<Button look="quiet">{t("try.title")}</Button>}>
      {scrap && (
        <MenuItem onSelect={() => onTry((terms) => ({ excluded: [...(terms.excluded ?? []), scrap] }))}>
          {t("try.exclude", { scrap })}
        </MenuItem>
      )}
      {source.cuts.map((cut) => (
        <MenuItem key={`${cut.run}.${cut.piece}`} onSelect={() => hold(cut)}>
          {t("try.pin", { run_name: cut.run_name, piece: cut.piece, name })}
        </MenuItem>
      ))}
      {source.cuts
        .filter((cut) => endsInCoupling(cut, places))
        .map((cut) => (
          <MenuItem key={`${cut.run}.${cut.piece}`} onSelect={() => couple(cut)}>
            {t("try.keep_coupling", { run_name: cut.run_name, place: reads(inches(cut.to_coupling), tape) })}
          </MenuItem>
        ))}
    </Menu>
  );
}

const inches = (sixteenths: number) => sixteenths / SIXTEENTHS;

function endsInCoupling(cut: Listed, places: RunCouplings[]): boolean {
  const own = places.find((one) => one.run === cut.run)?.at ?? [];
  return own.some((at) => Math.round(at * SIXTEENTHS) === cut.to_coupling);
}
