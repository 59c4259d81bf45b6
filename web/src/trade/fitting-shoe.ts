import type { RunDocument, Shoe } from "@/api/types";
import { t } from "@/words/trade";

type Pipe = Pick<RunDocument, "trade_size"> & { material?: RunDocument["material"] };

export const fits = (shoe: Pick<Shoe, "trade_size" | "material">, pipe: Pipe): boolean =>
  shoe.trade_size === pipe.trade_size && shoe.material === (pipe.material ?? "EMT");

/** The crew's shoe that a pipe is bent on unless somebody says otherwise: the one calibrated last, or not at all. */
export function fittingShoe(shoes: Shoe[], pipe: Pipe): Shoe | null {
  const when = (shoe: Shoe) => shoe.calibrated_at ?? "";
  const [first] = shoes
    .filter((shoe) => fits(shoe, pipe))
    .sort((one, other) => when(other).localeCompare(when(one)));
  return first ?? null;
}

/** A crew's shoes as one chooses among them, by name. */
export const shoeChoices = (shoes: Shoe[]) =>
  shoes.map((shoe) => ({
    value: shoe.name,
    label: shoe.name,
    hint: shoe.calibrated_at
      ? t("shoe.deduct", { deduct: shoe.used.deduct.reads })
      : t("shoe.not_calibrated"),
  }));

/** What is to be said of figures that no test bend in scrap stands behind; nothing where one does. */
export function uncalibrated(shoes: Shoe[], document: RunDocument): string {
  if (!document.shoe) return t("shoe.typical");
  const own = shoeOf(shoes, document);
  if (!own) return t("shoe.by_hand");
  return own.calibrated_at ? "" : t("shoe.uncalibrated", { own: own.name });
}

/** The same, and where the shoe has other figures now than the run. */
export function shoeCaution(shoes: Shoe[], document: RunDocument): string {
  const says = uncalibrated(shoes, document);
  const own = shoeOf(shoes, document);
  if (says || !own) return says;
  const changed = JSON.stringify(own.figures) !== JSON.stringify({ ...document.shoe, name: own.name });
  return changed ? t("shoe.changed", { own: own.name }) : "";
}

/** The crew's shoe that a run names, by the name that it has or one that it had. */
export function shoeOf(shoes: Shoe[], document: RunDocument): Shoe | undefined {
  const name = document.shoe?.name;
  if (!name) return undefined;
  const fitting = shoes.filter((shoe) => fits(shoe, document));
  return (
    fitting.find((shoe) => shoe.name === name) ?? fitting.find((shoe) => shoe.called_before.includes(name))
  );
}
