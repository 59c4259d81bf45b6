import { type FormEvent, useContext, useState } from "react";
import { useAddScrap, useCorrectScrap } from "@/api/stock-queries";
import type { CorrectIn, Scrap } from "@/api/types";
import { MATERIALS, PIPE_ENDS, TRADE_SIZES } from "@/trade/words";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { PlusIcon } from "@/ui/icons";
import { Select } from "@/ui/select";
import { TapeContext } from "@/ui/tape-field";
import { t } from "@/words/stock";
import { Refused } from "./refused";

const EMPTY: CorrectIn = {
  length: "",
  trade_size: "3/4",
  material: "EMT",
  place: "",
  end_a: "cut",
  end_b: "cut",
};

interface PieceProps {
  piece: CorrectIn;
  what: string;
  onChange: (piece: CorrectIn) => void;
}

/** What a bare length is read on: the tape that the rack was shown in while it was typed. */
const useTape = () => useContext(TapeContext);

function PieceFields({ piece, what, onChange }: PieceProps) {
  return (
    <div className="mt-1 flex flex-wrap items-end gap-2">
      <Field
        label={t("scrap.length")}
        className="w-28"
        value={piece.length}
        onChange={(event) => onChange({ ...piece, length: event.target.value })}
      />
      <Select
        boxed
        label={t("scrap.size.label", { what })}
        value={piece.trade_size}
        choices={TRADE_SIZES}
        onChoose={(trade_size) => onChange({ ...piece, trade_size })}
      />
      <Select
        boxed
        label={t("scrap.material.label", { what })}
        value={piece.material}
        choices={MATERIALS}
        onChoose={(material) => onChange({ ...piece, material })}
      />
      <Field
        label={t("scrap.place")}
        className="w-24"
        value={piece.place ?? ""}
        onChange={(event) => onChange({ ...piece, place: event.target.value })}
      />
      <span className="pb-2 text-[15px] text-soft">{t("scrap.ends")}</span>
      <Select
        boxed
        label={t("scrap.end_a.label", { what })}
        value={piece.end_a ?? "cut"}
        choices={PIPE_ENDS}
        onChoose={(end_a) => onChange({ ...piece, end_a })}
      />
      <Select
        boxed
        label={t("scrap.end_b.label", { what })}
        value={piece.end_b ?? "cut"}
        choices={PIPE_ENDS}
        onChoose={(end_b) => onChange({ ...piece, end_b })}
      />
    </div>
  );
}

function Wrong({ error }: { error: Error | null }) {
  if (!error) return null;
  return (
    <div className="mt-2">
      <Refused error={error} />
    </div>
  );
}

/** One piece after the other: Enter adds it, and size and place stay for the next. */
export function AddScrap() {
  const add = useAddScrap();
  const tape = useTape();
  const [piece, setPiece] = useState(EMPTY);
  function submit(event: FormEvent) {
    event.preventDefault();
    add.mutate({ ...piece, tape, count: 1 }, { onSuccess: () => setPiece({ ...piece, length: "" }) });
  }
  return (
    <form onSubmit={submit} className="mt-4 border-t border-line pt-3">
      <h3 className="font-bold">{t("scrap.add_title")}</h3>
      <PieceFields piece={piece} what={t("scrap.called")} onChange={setPiece} />
      <Button type="submit" disabled={add.isPending} className="mt-2 min-h-10">
        <PlusIcon /> {t("scrap.add")}
      </Button>
      <Wrong error={add.error} />
    </form>
  );
}

/** What is written of a piece, put right. */
export function CorrectScrap({ scrap }: { scrap: Scrap }) {
  const correct = useCorrectScrap(scrap);
  const tape = useTape();
  const { material, trade_size, place, end_a, end_b } = scrap;
  const [piece, setPiece] = useState<CorrectIn>({
    material,
    trade_size,
    place,
    end_a,
    end_b,
    length: scrap.reads,
  });
  return (
    <form
      aria-label={t("scrap.correct_named", { tag: scrap.tag })}
      onSubmit={(event) => {
        event.preventDefault();
        correct.mutate({ ...piece, tape });
      }}
    >
      <PieceFields piece={piece} what={scrap.tag} onChange={setPiece} />
      <Button type="submit" className="mt-2" disabled={correct.isPending}>
        {t("scrap.correct")}
      </Button>
      <Wrong error={correct.error} />
    </form>
  );
}
