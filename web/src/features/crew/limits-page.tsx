import { useState } from "react";
import type { ApiError } from "@/api/client";
import { useLimits, useMe, useSetLimits } from "@/api/queries";
import type { Limit } from "@/api/types";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { t } from "@/words/crew";
import { NewRunsForm } from "./new-runs-form";

/** The limits that the crew works by: its local code, its saw, its sticks. Its lead sets them. */
export function LimitsPage() {
  const limits = useLimits();
  const me = useMe().data;
  const maySet = me?.role === "lead";
  return (
    <Shell title={t("limits.title")}>
      <main className="mx-auto w-full max-w-4xl px-4 py-6">
        <h1 className="text-3xl font-bold">{t("limits.title")}</h1>
        <p className="mt-2 max-w-2xl text-lg">{t("limits.says")}</p>
        <div className="mt-3">
          <Notice severity="caution">{t("limits.local_code")}</Notice>
        </div>
        {limits.error && <Notice severity="stop">{limits.error.message}</Notice>}
        {me && <NewRunsForm key={JSON.stringify(me.new_runs)} newRuns={me.new_runs} maySet={maySet} />}
        {limits.data && <LimitsForm limits={limits.data} maySet={maySet} />}
      </main>
    </Shell>
  );
}

function LimitsForm({ limits, maySet }: { limits: Limit[]; maySet: boolean }) {
  const [typed, setTyped] = useState<Record<string, string>>({});
  const set = useSetLimits();
  const error = set.error as ApiError | null;
  const written = (one: Limit) => typed[one.name] ?? one.written;
  const changed = limits.some((one) => written(one) !== one.written);
  const save = () =>
    set.mutate(Object.fromEntries(limits.map((one) => [one.name, written(one)])), {
      onSuccess: () => setTyped({}),
    });
  return (
    <form
      className="mt-5 rounded-lg border border-line bg-paper"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <ul>
        {limits.map((one) => (
          <OneLimit
            key={one.name}
            limit={one}
            value={written(one)}
            wrong={error?.places[one.name]}
            maySet={maySet}
            onChange={(value) => setTyped({ ...typed, [one.name]: value })}
          />
        ))}
      </ul>
      {maySet ? (
        <div className="flex flex-wrap items-center gap-3 px-4 py-3">
          <Button type="submit" look="main" className="min-h-11" disabled={!changed || set.isPending}>
            {t("limits.save")}
          </Button>
          {error && <Notice severity="stop">{error.message}</Notice>}
          {set.isSuccess && !changed && <span className="text-soft">{t("limits.saved")}</span>}
        </div>
      ) : (
        <p className="px-4 py-3 text-soft">{t("limits.lead_only")}</p>
      )}
    </form>
  );
}

interface OneLimitProps {
  limit: Limit;
  value: string;
  wrong: string | undefined;
  maySet: boolean;
  onChange: (value: string) => void;
}

function OneLimit({ limit, value, wrong, maySet, onChange }: OneLimitProps) {
  const id = `limit-${limit.name}`;
  const name = (
    <>
      <span className="block text-lg font-semibold">{limit.title}</span>
      <span className="block text-[15px] text-soft">{limit.says}</span>
    </>
  );
  return (
    <li className="grid gap-x-4 gap-y-1 border-b border-line px-4 py-3 sm:grid-cols-[1fr_9rem_9rem] sm:items-center">
      {maySet ? <label htmlFor={id}>{name}</label> : <div>{name}</div>}
      {maySet && limit.choices.length > 0 ? (
        <Segments
          label={limit.title}
          value={value || limit.shipped}
          choices={limit.choices.map((choice) => ({ value: choice, label: choice }))}
          onChoose={(choice) => onChange(choice === limit.shipped ? "" : choice)}
        />
      ) : maySet ? (
        <input
          id={id}
          value={value}
          placeholder={limit.shipped}
          autoComplete="off"
          aria-invalid={Boolean(wrong)}
          aria-describedby={`${id}-told`}
          onChange={(event) => onChange(event.target.value)}
          className={`tape min-h-11 w-full rounded-md border bg-paper px-2.5 text-lg placeholder:text-soft ${wrong ? "border-stop" : "border-line"}`}
        />
      ) : (
        <span className="tape text-lg">{limit.reads}</span>
      )}
      <span id={`${id}-told`} className={`text-[15px] ${wrong ? "text-stop" : "text-soft"}`}>
        {wrong ?? (value ? t("limits.shipped", { shipped: limit.shipped }) : t("limits.reset"))}
      </span>
    </li>
  );
}
