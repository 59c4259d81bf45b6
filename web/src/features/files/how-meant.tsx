import { useState } from "react";
import { useReadAnew } from "@/api/imports";
import type { ImportOut, Meant } from "@/api/types";
import { MATERIALS, TRADE_SIZES } from "@/trade/words";
import { Button } from "@/ui/button";
import { CheckBox } from "@/ui/check-box";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { t } from "@/words/files";

const AS_IT_SAYS = "as it says";
const UNITS = [
  { value: AS_IT_SAYS, label: t("meant.as_it_says") },
  { value: "in", label: t("meant.in") },
  { value: "ft", label: t("meant.ft") },
  { value: "mm", label: t("meant.mm") },
  { value: "cm", label: t("meant.cm") },
  { value: "m", label: t("meant.m") },
];
const UPS = [
  { value: AS_IT_SAYS, label: t("meant.usual") },
  { value: "z", label: t("meant.z") },
  { value: "y", label: t("meant.y") },
];

/** How a file is meant where it does not say: of which pipe, in which unit. It is read anew so. */
export function HowMeant({ file }: { file: ImportOut }) {
  const [meant, setMeant] = useState<Meant>(file.meant);
  const anew = useReadAnew(file.id);
  const set = (more: Partial<Meant>) => setMeant({ ...meant, ...more });
  const isSame = JSON.stringify(meant) === JSON.stringify(file.meant);
  return (
    <details open={file.asks !== ""} className="rounded-md border border-line bg-paper px-4 py-2">
      <summary className="min-h-11 cursor-pointer content-center font-semibold">{t("meant.title")}</summary>
      <div className="flex flex-wrap items-end gap-4 pb-2">
        <Labelled says={t("meant.pipe")}>
          <Select
            boxed
            label={t("meant.size")}
            value={meant.trade_size ?? "3/4"}
            choices={TRADE_SIZES}
            onChoose={(trade_size) => set({ trade_size })}
          />{" "}
          <Select
            boxed
            label={t("meant.material")}
            value={meant.material ?? "EMT"}
            choices={MATERIALS}
            onChoose={(material) => set({ material })}
          />
        </Labelled>
        <Labelled says={t("meant.unit")}>
          <Select
            boxed
            label={t("meant.unit")}
            value={meant.unit || AS_IT_SAYS}
            choices={UNITS}
            invalid={file.asks === "unit" && !meant.unit}
            onChoose={(unit) =>
              set({ unit: (unit === AS_IT_SAYS ? "" : unit) as NonNullable<Meant["unit"]> })
            }
          />
        </Labelled>
        <Labelled says={t("meant.up")}>
          <Select
            boxed
            label={t("meant.up")}
            value={meant.up || AS_IT_SAYS}
            choices={UPS}
            onChoose={(up) => set({ up: (up === AS_IT_SAYS ? "" : up) as NonNullable<Meant["up"]> })}
          />
        </Labelled>
        <Field
          label={t("meant.layer")}
          className="w-44"
          maxLength={120}
          value={meant.layer ?? ""}
          onChange={(event) => set({ layer: event.target.value })}
        />
        <CheckBox checked={meant.things ?? false} onCheck={(things) => set({ things })}>
          {t("meant.things")}
        </CheckBox>
        <Button className="min-h-11" disabled={isSame || anew.isPending} onClick={() => anew.mutate(meant)}>
          {t("meant.read_anew")}
        </Button>
      </div>
      {anew.error && <Notice severity="stop">{anew.error.message}</Notice>}
    </details>
  );
}

function Labelled({ says, children }: { says: string; children: React.ReactNode }) {
  return (
    <div>
      <span className="mb-1 block text-[15px] font-semibold">{says}</span>
      {children}
    </div>
  );
}
