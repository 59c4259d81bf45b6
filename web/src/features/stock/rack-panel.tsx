import { useMemo, useState } from "react";
import { usePutBack, useRecycle, useSetTape, useTakeScrap } from "@/api/stock-queries";
import type { LedgerEntry, Scrap, Tape } from "@/api/types";
import { NotSent } from "@/shell/not-sent";
import { endOf, TAPES, TRADE_SIZES } from "@/trade/words";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { Select } from "@/ui/select";
import { t } from "@/words/stock";
import { AddMany } from "./add-many";
import { AddScrap, CorrectScrap } from "./rack-forms";

interface Props {
  rack: { tape: Tape; scraps: Scrap[]; ledger: LedgerEntry[] };
  used: Set<string>;
  mayWrite: boolean;
  leads: boolean;
}

type Order = "oldest" | "shortest" | "place";
const ORDERS: { value: Order; label: string }[] = [
  { value: "oldest", label: t("rack.order.oldest") },
  { value: "shortest", label: t("rack.order.shortest") },
  { value: "place", label: t("scrap.place") },
];
const COMPARE: Record<Order, (one: Scrap, other: Scrap) => number> = {
  oldest: (one, other) => one.since.localeCompare(other.since) || one.id - other.id,
  shortest: (one, other) => one.length - other.length,
  place: (one, other) => one.place.localeCompare(other.place) || one.length - other.length,
};
const SHOWN = 100;
const A_DAY = 24 * 60 * 60 * 1000;

/** The scrap rack to scale, by size; pieces that the cut list uses are marked. */
export function RackPanel({ rack, used, mayWrite, leads }: Props) {
  const [order, setOrder] = useState<Order>("oldest");
  const [wanted, setWanted] = useState("");
  const [shown, setShown] = useState(SHOWN);
  const found = useMemo(
    () => rack.scraps.filter((scrap) => matches(scrap, wanted)).sort(COMPARE[order]),
    [rack.scraps, wanted, order],
  );
  const longest = Math.max(120, ...rack.scraps.map((scrap) => scrap.length));
  const visible = found.slice(0, shown);
  const sizes = TRADE_SIZES.map((size) => size.value).filter((size) =>
    visible.some((scrap) => scrap.trade_size === size),
  );
  return (
    <div className="px-4 py-4">
      <h2 className="text-2xl font-bold">
        {t("rack.title")}{" "}
        <span className="tape text-base font-normal text-soft">
          {t("rack.pieces", { scraps: rack.scraps.length })}
        </span>
      </h2>
      <div className="mt-1 flex items-end gap-2">
        <Segments label={t("rack.order")} value={order} choices={ORDERS} onChoose={setOrder} />
        <Field
          label={t("rack.find")}
          placeholder={t("rack.find.example")}
          className="min-w-0 flex-1"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
        />
        <a href="/api/rack.csv" className="pb-2 underline">
          {t("csv")}
        </a>
      </div>
      <RackTape tape={rack.tape} leads={leads} />
      <NotSent kind="scrap" />
      {found.length === 0 && (
        <p className="mt-2 text-soft">{rack.scraps.length ? t("rack.find.nothing") : t("rack.empty")}</p>
      )}
      {sizes.map((size) => (
        <section key={size} aria-label={t("rack.of_size", { size })} className="mt-3">
          <h3 className="tape font-bold">{size}</h3>
          <ul>
            {visible
              .filter((scrap) => scrap.trade_size === size)
              .map((scrap) => (
                <ScrapRow
                  key={scrap.id}
                  scrap={scrap}
                  longest={longest}
                  used={used.has(scrap.tag)}
                  mayWrite={mayWrite}
                />
              ))}
          </ul>
        </section>
      ))}
      {found.length > shown && (
        <Button className="mt-2" onClick={() => setShown(shown + 5 * SHOWN)}>
          {t("rack.more", { found: found.length })}
        </Button>
      )}
      {mayWrite && <AddScrap />}
      {mayWrite && <AddMany />}
      <Ledger
        entries={rack.ledger}
        mayWrite={mayWrite}
        onRack={new Set(rack.scraps.map((scrap) => scrap.id))}
      />
    </div>
  );
}

/** What the rack is measured with: bare lengths are read on it. The lead changes it for the whole crew. */
function RackTape({ tape, leads }: { tape: Tape; leads: boolean }) {
  const change = useSetTape();
  return (
    <p className="mt-2 text-[15px] text-soft">
      {t("rack.tape.before")}{" "}
      {leads ? (
        <Select label={t("rack.tape.label")} value={tape} choices={TAPES} onChoose={change.mutate} />
      ) : (
        <strong className="tape">{tape}</strong>
      )}{" "}
      {t("rack.tape.after", { detail: tape === "1 mm" ? t("rack.tape.mm") : t("rack.tape.inches") })}
    </p>
  );
}

function matches(scrap: Scrap, wanted: string): boolean {
  const words = [scrap.tag, scrap.trade_size, scrap.material, scrap.place, scrap.reads].map((word) =>
    word.toLowerCase(),
  );
  return wanted
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean)
    .every((part) =>
      words.some((word) => word === part || word.split(" ").includes(part) || word.startsWith(part)),
    );
}

interface RowProps {
  scrap: Scrap;
  longest: number;
  used: boolean;
  mayWrite: boolean;
}

function ScrapRow({ scrap, longest, used, mayWrite }: RowProps) {
  const [open, setOpen] = useState(false);
  const take = useTakeScrap();
  const recycle = useRecycle();
  const days = Math.floor((Date.now() - Date.parse(scrap.since)) / A_DAY);
  const age = days === 0 ? "today" : `${days} d`;
  const about = [
    scrap.reserved_for ? "reserved" : used ? t("rack.in_use") : "",
    scrap.material === "EMT" ? "" : scrap.material,
  ];
  const error = take.error ?? recycle.error;
  return (
    <li>
      <button
        type="button"
        aria-expanded={open}
        className="flex min-h-9 w-full items-center gap-2 rounded-sm text-left hover:bg-tint"
        onClick={() => setOpen(!open)}
      >
        <span className="w-10 shrink-0 text-[15px] text-soft">{scrap.tag}</span>
        <strong className="tape w-[5.25rem] shrink-0 whitespace-nowrap text-right text-lg">
          {scrap.reads}
        </strong>
        <svg width="86" height="16" aria-hidden="true" className="shrink-0">
          <rect
            x="0.75"
            y="2"
            width={Math.max((scrap.length / longest) * 84, 4)}
            height="12"
            fill={used || scrap.reserved_for ? "var(--accent)" : "var(--pipe)"}
            stroke="var(--pipe-edge)"
            strokeWidth="1.5"
          />
        </svg>
        <span className="truncate text-[15px] text-soft">
          {[...about, scrap.place, age].filter(Boolean).join(", ")}
        </span>
      </button>
      {open && (
        <div className="mb-2 border-l-4 border-line pl-3">
          <p className="text-[15px] text-soft">
            {t("rack.ends", {
              detail: days === 0 ? t("rack.since_today") : t("rack.days", { count: days }),
              end_a: endOf(scrap.end_a),
              end_b: endOf(scrap.end_b),
            })}{" "}
            {scrap.reserved_for && t("rack.reserved", { reserved_for: scrap.reserved_for })}
          </p>
          {mayWrite && !scrap.reserved_for && (
            <>
              <div className="mt-1 flex gap-2">
                <Button
                  aria-label={t("rack.take_named", { tag: scrap.tag })}
                  onClick={() => take.mutate(scrap.id)}
                >
                  {t("rack.take")}
                </Button>
                <Button
                  aria-label={t("rack.recycle_named", { tag: scrap.tag })}
                  onClick={() => recycle.mutate(scrap.id)}
                >
                  {t("rack.recycle")}
                </Button>
              </div>
              <CorrectScrap scrap={scrap} />
            </>
          )}
          {error && <Notice severity="caution">{error.message}</Notice>}
        </div>
      )}
    </li>
  );
}

interface LedgerProps {
  entries: LedgerEntry[];
  mayWrite: boolean;
  onRack: Set<number>;
}

function Ledger({ entries, mayWrite, onRack }: LedgerProps) {
  const putBack = usePutBack();
  const latest = new Map<number, number>();
  for (const entry of entries) if (!latest.has(entry.scrap_id)) latest.set(entry.scrap_id, entry.id);
  return (
    <section aria-label={t("ledger.title")} className="mt-4 border-t border-line pt-3">
      <div className="flex items-center gap-3">
        <h3 className="font-bold">{t("ledger.latest")}</h3>
        <a href="/api/rack/ledger.csv" className="text-[15px] underline">
          {t("ledger.csv")}
        </a>
      </div>
      <ul className="tape text-[15px] text-soft">
        {entries.slice(0, 10).map((entry) => (
          <li
            key={entry.id}
            className="flex min-h-8 items-center gap-2 border-b border-line py-1 leading-snug"
          >
            <span>
              <strong className="text-ink">{entry.tag}</strong>
              {t("ledger.line", { entry: entry.reads, what: entry.what, by: entry.by })}
              {entry.note && `, ${entry.note}`}
            </span>
            {mayWrite &&
              ["taken", "recycled"].includes(entry.what) &&
              latest.get(entry.scrap_id) === entry.id &&
              !onRack.has(entry.scrap_id) && (
                <Button look="quiet" className="ml-auto" onClick={() => putBack.mutate(entry.scrap_id)}>
                  {t("ledger.put_back")}
                </Button>
              )}
          </li>
        ))}
      </ul>
    </section>
  );
}
