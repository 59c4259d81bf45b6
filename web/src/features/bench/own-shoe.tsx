import { useShoes } from "@/api/queries";
import { fits, shoeChoices } from "@/trade/fitting-shoe";
import { Select } from "@/ui/select";
import { t } from "@/words/bench";
import { useBenchContext } from "./bench-context";

const RUNS = t("shoe.of_run");

/** Lets one take a stick to another shoe of its size, as long as nothing is bent on it. */
export function OwnShoe() {
  const { bench, stick, arrange, mayWrite } = useBenchContext();
  const planned = bench.document.shoe?.name ?? "";
  const others = (useShoes().data ?? []).filter((shoe) => fits(shoe, bench) && shoe.name !== planned);
  const own = stick.arranged.shoe?.name ?? "";
  if (!mayWrite || stick.made.length > 0 || stick.sheet.bends.length === 0) return null;
  if (others.length === 0 && !own) return null;
  const choices = [
    { value: RUNS, label: planned ? `${planned}, ${RUNS}` : t("shoe.typical") },
    ...shoeChoices(others),
  ];
  if (own && !others.some((shoe) => shoe.name === own)) choices.push({ value: own, label: own });
  return (
    <p className="text-[17px] leading-9">
      {t("shoe.of_stick")}{" "}
      <Select
        label={t("shoe.of_stick.label")}
        value={own || RUNS}
        choices={choices}
        onChoose={(name) => {
          const shoe = others.find((one) => one.name === name);
          if (shoe || name === RUNS) arrange({ shoe: shoe?.figures ?? null, order: null });
        }}
      />
    </p>
  );
}
