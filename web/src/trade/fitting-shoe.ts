import type { RunDocument, Shoe } from "@/api/types";

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
    hint: shoe.calibrated_at ? `deduct ${shoe.used.deduct.reads}` : "not calibrated",
  }));

/** What is to be said of figures that no test bend in scrap stands behind; nothing where one does. */
export function uncalibrated(shoes: Shoe[], document: RunDocument): string {
  if (!document.shoe) return "These are typical figures of a shoe of this size, not those of yours.";
  const own = shoes.find((shoe) => shoe.name === document.shoe?.name && fits(shoe, document));
  if (!own) return "These figures were written in by hand; no shoe in your list has them.";
  return own.calibrated_at
    ? ""
    : `${own.name} is not calibrated: its figures are typical ones, or were written in.`;
}
