import { type FormEvent, useState } from "react";
import { ApiError } from "@/api/client";
import { useAddScrap, usePutBack, useTakeScrap } from "@/api/queries";
import type { CutList, LedgerEntry, Scrap } from "@/api/types";
import { MATERIALS, type Material, TRADE_SIZES, type TradeSize } from "@/features/walk/words";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { PlusIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";

interface Props {
  rack: { scraps: Scrap[]; ledger: LedgerEntry[] };
  cuts: CutList | undefined;
  mayWrite: boolean;
}

const LONGEST = 120;

/** The scrap rack to scale, by size; pieces that the cut list uses are marked. */
export function RackPanel({ rack, cuts, mayWrite }: Props) {
  const used = new Set(cuts?.sources.map((source) => source.scrap));
  const take = useTakeScrap();
  const sizes = TRADE_SIZES.map((size) => size.value).filter((size) =>
    rack.scraps.some((scrap) => scrap.trade_size === size),
  );
  return (
    <div className="px-4 py-4">
      <h2 className="text-2xl font-bold">Scrap rack</h2>
      {take.error && <Notice severity="caution">{take.error.message}</Notice>}
      {rack.scraps.length === 0 && <p className="mt-2 text-soft">The rack is empty.</p>}
      {sizes.map((size) => (
        <section key={size} aria-label={`${size} on the rack`} className="mt-3">
          <h3 className="tape font-bold">{size}</h3>
          <ul>
            {rack.scraps
              .filter((scrap) => scrap.trade_size === size)
              .map((scrap) => (
                <ScrapRow
                  key={scrap.id}
                  scrap={scrap}
                  used={used.has(scrap.tag)}
                  onTake={mayWrite ? () => take.mutate(scrap.id) : null}
                />
              ))}
          </ul>
        </section>
      ))}
      {mayWrite && <AddScrap />}
      <Ledger
        entries={rack.ledger}
        mayWrite={mayWrite}
        onRack={new Set(rack.scraps.map((scrap) => scrap.id))}
      />
    </div>
  );
}

function ScrapRow({ scrap, used, onTake }: { scrap: Scrap; used: boolean; onTake: (() => void) | null }) {
  return (
    <li className="flex items-center gap-2 py-0.5">
      <span className="w-9 shrink-0 text-[15px] text-soft">{scrap.tag}</span>
      <strong className="tape w-16 shrink-0 text-right text-lg">{scrap.reads}</strong>
      <svg width="130" height="16" aria-hidden="true">
        <rect
          x="0.75"
          y="2"
          width={Math.max((scrap.length / LONGEST) * 128, 4)}
          height="12"
          fill={used ? "var(--accent)" : "var(--pipe)"}
          stroke="var(--pipe-edge)"
          strokeWidth="1.5"
        />
      </svg>
      <span className="w-14 text-[15px] text-soft">
        {used && "in use"}
        {scrap.material !== "EMT" && ` ${scrap.material}`}
      </span>
      {onTake && (
        <Button
          look="quiet"
          className="ml-auto"
          aria-label={`Take ${scrap.tag} off the rack`}
          onClick={onTake}
        >
          Take
        </Button>
      )}
    </li>
  );
}

function AddScrap() {
  const add = useAddScrap();
  const [length, setLength] = useState("");
  const [size, setSize] = useState<TradeSize>("3/4");
  const [material, setMaterial] = useState<Material>("EMT");
  const error = add.error instanceof ApiError ? add.error : null;

  function submit(event: FormEvent) {
    event.preventDefault();
    add.mutate({ length, trade_size: size, material, count: 1 }, { onSuccess: () => setLength("") });
  }

  return (
    <form onSubmit={submit} className="mt-4 border-t border-line pt-3">
      <h3 className="font-bold">Put a piece on the rack</h3>
      <div className="mt-1 flex items-end gap-2">
        <Field label="Length" className="w-28" value={length} onChange={(e) => setLength(e.target.value)} />
        <Select boxed label="Size of the scrap" value={size} choices={TRADE_SIZES} onChoose={setSize} />
        <Select
          boxed
          label="Material of the scrap"
          value={material}
          choices={MATERIALS}
          onChoose={setMaterial}
        />
        <Button type="submit" disabled={add.isPending} className="min-h-10">
          <PlusIcon /> Add
        </Button>
      </div>
      {error && (
        <div className="mt-2">
          <Notice severity="stop">{error.places.length ?? error.message}</Notice>
        </div>
      )}
    </form>
  );
}

function Ledger({
  entries,
  mayWrite,
  onRack,
}: {
  entries: LedgerEntry[];
  mayWrite: boolean;
  onRack: Set<number>;
}) {
  const putBack = usePutBack();
  const latest = new Map<number, number>();
  for (const entry of entries) if (!latest.has(entry.scrap_id)) latest.set(entry.scrap_id, entry.id);
  return (
    <section aria-label="Ledger" className="mt-4 border-t border-line pt-3">
      <h3 className="font-bold">Lately</h3>
      <ul className="tape text-[15px] text-soft">
        {entries.slice(0, 6).map((entry) => (
          <li key={entry.id} className="flex min-h-9 items-center gap-2">
            <span>
              {entry.tag} ({entry.reads}) {entry.what} by {entry.by}
            </span>
            {mayWrite &&
              entry.what === "taken" &&
              latest.get(entry.scrap_id) === entry.id &&
              !onRack.has(entry.scrap_id) && (
                <Button look="quiet" className="ml-auto" onClick={() => putBack.mutate(entry.scrap_id)}>
                  Put back
                </Button>
              )}
          </li>
        ))}
      </ul>
    </section>
  );
}
