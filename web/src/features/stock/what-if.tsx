import { type FormEvent, useState } from "react";
import { useKeepSold } from "@/api/cutting";
import { useMe } from "@/api/queries";
import type { CutKind, CutTerms, Tape } from "@/api/types";
import { reads, toTape } from "@/draw/fractions";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/stock";

interface Props {
  jobId: number;
  tape: Tape;
  terms: CutTerms;
  /** The crew's own, as without any trial. */
  usual: CutTerms;
  kinds: CutKind[];
  wrong: Record<string, string>;
  onPlan: (terms: Record<string, unknown>) => void;
}

interface Typed {
  keep: string;
  kerf: string;
  spare: string;
  coupling: string;
  fetch: string;
  thread: string;
  offcut: string;
  rack_most: string;
  doubt: string;
  square: string;
  sold: Record<string, string>;
}

const LABELS = {
  keep: t("terms.keep"),
  kerf: t("terms.kerf"),
  spare: t("terms.trim"),
  coupling: t("terms.coupling_cost"),
  fetch: t("terms.fetch_cost"),
  thread: t("terms.thread_cost"),
  offcut: t("terms.offcut"),
  rack_most: t("terms.rack_most"),
  doubt: t("terms.margin"),
  square: t("terms.square"),
} as const;
const STICK = 120;
const IN_STICKS = new Set<string>(["coupling", "fetch", "thread"]);
const nameOf = (kind: { trade_size: string; material: string }) => `${kind.trade_size} ${kind.material}`;

/** What might be cut by: each trial is planned at once, and what it costs is told above. */
export function WhatIf({ jobId, tape, terms, usual, kinds, wrong, onPlan }: Props) {
  const keepSold = useKeepSold(jobId);
  const leads = useMe().data?.role === "lead";
  const ownSold = JSON.stringify(terms.sold ?? []) !== JSON.stringify(usual.sold ?? []);
  const begun = asTyped(terms, kinds, tape);
  const [typed, setTyped] = useState<Typed>(begun);
  // What was not touched is sent as it is: a tape shows less than it may be.
  const as = (key: "keep" | "kerf" | "spare" | "doubt" | "square") =>
    typed[key] === begun[key] ? terms[key] : typed[key];
  const written = (): Record<string, unknown> => ({
    ...terms,
    keep: as("keep"),
    kerf: as("kerf"),
    spare: as("spare"),
    coupling: Number(typed.coupling) || typed.coupling,
    fetch: asNumber(typed.fetch),
    thread: asNumber(typed.thread),
    offcut: asNumber(typed.offcut),
    rack_most: typed.rack_most.trim() ? asNumber(typed.rack_most) : null,
    doubt: as("doubt"),
    square: as("square"),
    sold: kinds.flatMap((kind): unknown[] => {
      const [now, then] = [typed.sold[nameOf(kind)], begun.sold[nameOf(kind)]];
      const own = terms.sold?.filter((one) => nameOf(one) === nameOf(kind)) ?? [];
      return now === then ? own : soldAs(kind, now ?? "");
    }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onPlan(written());
  };
  return (
    <form
      onSubmit={submit}
      aria-label={t("what_if.title")}
      className="mt-3 rounded-md border border-line bg-paper p-3"
    >
      <div className="flex flex-wrap items-start gap-3">
        {(Object.keys(LABELS) as (keyof typeof LABELS)[]).map((key) => (
          <Field
            key={key}
            label={LABELS[key] + (IN_STICKS.has(key) ? t("what_if.in_sticks") : "")}
            className={IN_STICKS.has(key) ? "w-56" : "w-44"}
            value={typed[key]}
            wrong={wrong[`terms.${key}`]}
            onChange={(event) => setTyped({ ...typed, [key]: event.target.value })}
          />
        ))}
        {kinds.map((kind) => (
          <Field
            key={nameOf(kind)}
            label={t("what_if.sold", { kind: nameOf(kind) })}
            title={t("what_if.lengths", { example: example(tape) })}
            className="w-52"
            value={typed.sold[nameOf(kind)] ?? ""}
            wrong={wrongSold(wrong, nameOf(kind), terms)}
            onChange={(event) =>
              setTyped({ ...typed, sold: { ...typed.sold, [nameOf(kind)]: event.target.value } })
            }
          />
        ))}
      </div>
      <p className="mt-1 text-[15px] text-soft">{t("what_if.lengths.label", { example: example(tape) })}</p>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Button type="submit" look="main">
          {t("what_if.try")}
        </Button>
        <Button onClick={() => onPlan({ ...written(), use_scrap: !terms.use_scrap })}>
          {terms.use_scrap ? t("what_if.no_scrap") : t("what_if.scrap_again")}
        </Button>
        <Button
          onClick={() => {
            setTyped(asTyped(usual, kinds, tape));
            onPlan({ goal: terms.goal });
          }}
        >
          {t("what_if.reset")}
        </Button>
        {leads && ownSold && (
          <Button disabled={keepSold.isPending} onClick={() => keepSold.mutate(undefined)}>
            {t("what_if.for_all")}
          </Button>
        )}
        {keepSold.error && <Notice severity="stop">{keepSold.error.message}</Notice>}
        {(terms.excluded ?? []).map((tag) => (
          <Button
            key={tag}
            onClick={() => onPlan({ ...terms, excluded: terms.excluded?.filter((other) => other !== tag) })}
          >
            {t("try.use_scrap", { tag })}
          </Button>
        ))}
        {(terms.couplings ?? []).map((pin, at) => (
          <Button
            key={`${pin.run}.${pin.at}`}
            onClick={() =>
              onPlan({ ...terms, couplings: terms.couplings?.filter((_, other) => other !== at) })
            }
          >
            {t("try.release_coupling", {
              runName: runName(kinds, pin.run),
              place: reads(Number(pin.at), tape),
            })}
          </Button>
        ))}
        {(terms.pieces ?? []).map((pin, at) => (
          <Button
            key={`${pin.run}.${pin.start}`}
            onClick={() => onPlan({ ...terms, pieces: terms.pieces?.filter((_, other) => other !== at) })}
          >
            {t("try.release_pin", {
              runName: runName(kinds, pin.run),
              length: reads(Number(pin.end) - Number(pin.start), tape),
              scrap: pin.scrap ?? t("try.new_stick"),
            })}
          </Button>
        ))}
      </div>
    </form>
  );
}

/** A figure as a number; what is none stays as it was typed, and is told. */
const asNumber = (text: string): number | string => (Number.isNaN(Number(text)) ? text : Number(text));

const example = (tape: Tape): string => `${toTape(STICK, tape)} = 9.80, ${toTape(2 * STICK, tape)} = 21`;

function runName(kinds: CutKind[], run: string): string {
  const cuts = kinds
    .flatMap((kind) => kind.choices.flatMap((choice) => choice.sources))
    .flatMap((one) => one.cuts);
  return cuts.find((cut) => cut.run === run)?.run_name || t("try.a_run");
}

function asTyped(terms: CutTerms, kinds: CutKind[], tape: Tape): Typed {
  const shown = (inches: unknown) => toTape(Number(inches ?? 0), tape);
  const sold: Record<string, string> = {};
  for (const kind of kinds) sold[nameOf(kind)] = shown(STICK);
  for (const kind of terms.sold ?? [])
    sold[nameOf(kind)] = kind.sticks
      .map((stick) => shown(stick.length) + (stick.price ? ` = ${stick.price}` : ""))
      .join(", ");
  return {
    keep: shown(terms.keep),
    kerf: shown(terms.kerf),
    spare: shown(terms.spare),
    coupling: String(terms.coupling ?? 0.25),
    fetch: String(terms.fetch ?? 0),
    thread: String(terms.thread ?? 0),
    offcut: String(terms.offcut ?? 1),
    rack_most: terms.rack_most == null ? "" : String(terms.rack_most),
    doubt: shown(terms.doubt),
    square: shown(terms.square),
    sold,
  };
}

function soldAs(kind: CutKind, text: string) {
  const sticks = text
    .split(",")
    .map((part) => part.split("=").map((word) => word.trim()))
    .filter(([length]) => length)
    .map(([length, price]) => ({ length, price: price ? Number(price) || price : null }));
  return sticks.length ? [{ material: kind.material, trade_size: kind.trade_size, sticks }] : [];
}

function wrongSold(wrong: Record<string, string>, name: string, terms: CutTerms): string | undefined {
  const place = Object.keys(wrong).find((key) => {
    const at = /^terms\.sold\.(\d+)/.exec(key)?.[1];
    const kind = at === undefined ? undefined : terms.sold?.[Number(at)];
    return at !== undefined && (!kind || nameOf(kind) === name);
  });
  return place && wrong[place];
}
