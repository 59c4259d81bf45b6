import { type FormEvent, useState } from "react";
import { ApiError } from "@/api/client";
import { useAddShoe, useChangeShoe } from "@/api/shoe-queries";
import type { Shoe, ShoeIn } from "@/api/types";
import { MATERIALS, TRADE_SIZES } from "@/trade/words";
import { Button } from "@/ui/button";
import { CheckBox } from "@/ui/check-box";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { t } from "@/words/shoes";

/** A shoe's name, size and figures; figures left empty are typical ones until it is calibrated. */
export function ShoeForm({ shoe, onDone }: { shoe?: Shoe; onDone: () => void }) {
  const add = useAddShoe();
  const change = useChangeShoe(shoe);
  const [given, setGiven] = useState(() => begun(shoe));
  const saving = shoe ? change : add;
  const error = saving.error instanceof ApiError ? saving.error : null;
  const wrong = (key: string) => error?.places[`given.${key}`] ?? error?.places[key];
  const set = (part: Partial<Given>) => setGiven({ ...given, ...part });

  function submit(event: FormEvent) {
    event.preventDefault();
    saving.mutate(sent(given), { onSuccess: onDone });
  }

  const field = (key: keyof Written, label: string, hint = "") => (
    <Field
      label={label}
      className="w-36"
      value={given[key]}
      placeholder={hint}
      maxLength={key === "name" ? 80 : 40}
      onChange={(event) => set({ [key]: event.target.value })}
      wrong={wrong(key)}
    />
  );
  return (
    <form
      onSubmit={submit}
      aria-label={shoe ? t("form.change_title", { shoe: shoe.name }) : t("form.new_title")}
      className="mt-3 border-t border-line px-4 py-4"
    >
      <div className="flex flex-wrap items-start gap-3">
        {field("name", t("form.name"))}
        <div>
          <p className="mb-1 text-[15px] font-semibold">{t("form.made_for")}</p>
          <Select
            boxed
            label={t("form.size")}
            value={given.trade_size}
            choices={TRADE_SIZES}
            onChoose={(trade_size) => set({ trade_size })}
          />{" "}
          <Select
            boxed
            label={t("form.material")}
            value={given.material}
            choices={MATERIALS}
            onChoose={(material) => set({ material })}
          />
        </div>
        {field("deduct", t("found.deduct"), "typical")}
        {field("gain", t("form.gain"), "typical")}
        {field("front", t("form.front"), t("form.not_known"))}
        {field("heel", t("form.heel"), t("form.heel.usual"))}
        {field("handle_up", t("form.handle"))}
        {field("own", t("form.reference.label"), "name")}
        {field("own_at", t("form.reference.from"), "inches")}
        <CheckBox className="self-end" checked={given.machine} onCheck={(machine) => set({ machine })}>
          {t("form.machine")}
        </CheckBox>
      </div>
      {error && Object.keys(error.places).length === 0 && <Notice severity="stop">{error.message}</Notice>}
      {wrong("references") && (
        <Notice severity="stop">
          {t("form.reference")} {wrong("references")}
        </Notice>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <Button
          look="main"
          type="submit"
          className="min-h-10"
          disabled={!given.name.trim() || saving.isPending}
        >
          {shoe ? t("form.save") : t("form.add")}
        </Button>
        <Button className="min-h-10" onClick={onDone}>
          {t("cancel")}
        </Button>
      </div>
    </form>
  );
}

interface Written {
  name: string;
  deduct: string;
  gain: string;
  front: string;
  heel: string;
  handle_up: string;
  own: string;
  own_at: string;
}

interface Given extends Written {
  material: ShoeIn["material"] & string;
  trade_size: ShoeIn["trade_size"];
  machine: boolean;
}

export function begun(shoe: Shoe | undefined): Given {
  const figures = shoe?.figures;
  const [own, ownAt] = Object.entries(figures?.references ?? {})[0] ?? ["", ""];
  return {
    name: shoe?.name ?? "",
    material: shoe?.material ?? "EMT",
    trade_size: shoe?.trade_size ?? "3/4",
    deduct: String(figures?.deduct ?? ""),
    gain: String(figures?.gain ?? ""),
    front: String(figures?.front ?? ""),
    heel: String(figures?.heel ?? ""),
    handle_up: String(shoe?.handle_up ?? 30),
    own,
    own_at: String(ownAt),
    machine: shoe?.machine ?? false,
  };
}

export function sent(given: Given): ShoeIn {
  const { own, own_at, handle_up, ...rest } = given;
  const empty = (text: string) => text.trim() || null;
  return {
    ...rest,
    name: given.name.trim(),
    deduct: empty(given.deduct),
    gain: empty(given.gain),
    front: empty(given.front),
    heel: empty(given.heel),
    handle_up: Number(handle_up),
    references: own.trim() ? { [own.trim()]: own_at } : {},
  };
}
