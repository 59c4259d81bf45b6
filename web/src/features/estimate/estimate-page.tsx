import { type FormEvent, useId, useState } from "react";
import { ApiError } from "@/api/client";
import { useLabour, useSetLabour, useSetPrices, useTakeTogether } from "@/api/estimate";
import { useJobs } from "@/api/queries";
import type { LabourFigures, Work } from "@/api/types";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { CheckBox } from "@/ui/check-box";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/estimate";
import { countOf, money } from "./money";
import { Spread } from "./spread";
import { WORKS } from "./what-it-takes";

/** The crew's prices and labour figures, and several jobs together. */
export function EstimatePage() {
  const figures = useLabour();
  return (
    <Shell title={t("estimate.title")}>
      <main className="mx-auto flex w-full max-w-4xl flex-col gap-6 px-4 py-6">
        <h1 className="text-2xl font-bold">{t("estimate.title")}</h1>
        {figures.error && <Notice severity="stop">{figures.error.message}</Notice>}
        <Together />
        {figures.data && <LabourForm key={JSON.stringify(figures.data.labour)} {...figures.data} />}
        {figures.data && <Prices prices={figures.data.prices} maySet={figures.data.may_set} />}
      </main>
    </Shell>
  );
}

/** What the jobs that are ticked take together. */
function Together() {
  const jobs = (useJobs().data ?? []).filter((job) => !job.archived_at && job.runs.length > 0);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const chosen = jobs.map((job) => job.id).filter((id) => !left.has(id));
  const together = useTakeTogether(chosen);
  const toggle = (id: number) =>
    setLeft((before) => {
      const next = new Set(before);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const ofJob = (id: number) => together.data?.jobs.find((one) => one.id === id);
  return (
    <section aria-label={t("together.title")} className="rounded-lg border border-line bg-paper p-4">
      <h2 className="text-xl font-bold">{t("together.title")}</h2>
      <ul>
        {jobs.map((job) => {
          const one = ofJob(job.id);
          return (
            <li key={job.id} className="flex flex-wrap items-center gap-x-4 border-b border-line/60">
              <CheckBox checked={!left.has(job.id)} onCheck={() => toggle(job.id)} className="min-w-60">
                {job.name}
              </CheckBox>
              {one && (
                <span className="tape ml-auto text-right text-[17px]">
                  {t("together.materials", { total: money(one.materials.total) })} ·{" "}
                  <Spread labour={one.labour} />
                </span>
              )}
            </li>
          );
        })}
      </ul>
      {together.data && (
        <p className="tape mt-2 text-lg font-bold" data-testid="together">
          {t("together.materials", { total: money(together.data.materials) })} ·{" "}
          <Spread labour={together.data.labour} />
          {together.data.total !== null && ` · ${t("takes.total", { total: money(together.data.total) })}`}
        </p>
      )}
      {together.error && <Notice severity="stop">{together.error.message}</Notice>}
      <p className="mt-1 text-[15px] text-soft">{t("takes.estimate")}</p>
    </section>
  );
}

const KINDS: Work[] = ["bend", "cut", "coupling", "strap", "ten_feet"];

interface FormProps {
  labour: LabourFigures;
  proposed: { work: Work; minutes: number; times: number }[];
  may_set: boolean;
}

/** Minutes for each kind of work; what the log proposes is taken with one touch. */
function LabourForm({ labour, proposed, may_set }: FormProps) {
  const set = useSetLabour();
  const [typed, setTyped] = useState<Record<string, string>>(() =>
    Object.fromEntries([...KINDS, "rate"].map((kind) => [kind, asText(labour[kind as keyof LabourFigures])])),
  );
  const error = set.error instanceof ApiError ? set.error : null;
  const write = (kind: string, value: string) => setTyped((before) => ({ ...before, [kind]: value }));

  function submit(event: FormEvent) {
    event.preventDefault();
    const said = Object.entries(typed).filter(([, value]) => value.trim());
    set.mutate(
      Object.fromEntries(said.map(([kind, value]) => [kind, value.trim()])) as unknown as LabourFigures,
    );
  }

  return (
    <form onSubmit={submit} className="rounded-lg border border-line bg-paper p-4">
      <h2 className="text-xl font-bold">{t("figures.title")}</h2>
      <p className="text-[17px] text-soft">{t("figures.says")}</p>
      <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-3">
        {KINDS.map((kind) => {
          const log = proposed.find((one) => one.work === kind);
          return (
            <div key={kind}>
              <Field
                label={WORKS[kind]}
                inputMode="decimal"
                disabled={!may_set}
                value={typed[kind] ?? ""}
                wrong={error?.places[`given.${kind}`]}
                onChange={(event) => write(kind, event.target.value)}
              />
              {log && may_set && (
                <Button
                  type="button"
                  look="quiet"
                  className="text-accent"
                  onClick={() => write(kind, String(log.minutes))}
                >
                  {t("figures.from_log", { minutes: countOf(log.minutes), times: log.times })}
                </Button>
              )}
            </div>
          );
        })}
        <Field
          label={t("figures.rate")}
          inputMode="decimal"
          disabled={!may_set}
          value={typed.rate ?? ""}
          wrong={error?.places["given.rate"]}
          onChange={(event) => write("rate", event.target.value)}
        />
      </div>
      {error && !Object.keys(error.places).length && <Notice severity="stop">{error.message}</Notice>}
      {may_set && (
        <Button type="submit" look="main" className="mt-3" disabled={set.isPending}>
          {t("figures.keep")}
        </Button>
      )}
    </form>
  );
}

const asText = (value: number | null | undefined): string =>
  value === null || value === undefined ? "" : String(value);

/** The price list, as CSV out and in. */
function Prices({ prices, maySet }: { prices: number; maySet: boolean }) {
  const set = useSetPrices();
  const id = useId();
  const error = set.error instanceof ApiError ? set.error : null;
  const read = async (file: File | undefined) => file && set.mutate(await file.text());
  return (
    <section aria-label={t("prices.title")} className="rounded-lg border border-line bg-paper p-4">
      <h2 className="text-xl font-bold">{t("prices.title")}</h2>
      <p className="text-[17px] text-soft">{t("prices.says")}</p>
      <p className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 text-[17px]">
        <strong>{t("prices.count", { count: prices })}</strong>
        <a href="/api/estimate/prices.csv" className="underline">
          {t("prices.csv")}
        </a>
      </p>
      {maySet && (
        <div className="mt-2">
          <label htmlFor={id} className="mb-1 block text-[15px] font-semibold">
            {t("prices.read")}
          </label>
          <input
            id={id}
            type="file"
            accept=".csv,text/csv,text/plain"
            className="min-h-11 max-w-full"
            onChange={(event) => {
              void read(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
        </div>
      )}
      {error && (
        <Notice severity="stop">
          {error.message}
          <ul className="mt-1 list-disc pl-5">
            {Object.entries(error.places).map(([place, says]) => (
              <li key={place}>{t("prices.line", { line: place.replace("line.", ""), says })}</li>
            ))}
          </ul>
        </Notice>
      )}
      {set.data && <Notice severity="note">{t("prices.taken", { count: set.data.prices })}</Notice>}
    </section>
  );
}
