import { useState } from "react";
import { Link } from "react-router";
import { useSchedule } from "@/api/estimate";
import { usePeople } from "@/api/people";
import type { JobTakes, RunStages, ScheduleIn } from "@/api/types";
import { StatusMark } from "@/draw/status-mark";
import { Button } from "@/ui/button";
import { dateOf, dayOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { t } from "@/words/estimate";

interface Props {
  job: JobTakes;
  mayWrite: boolean;
}

/** Each run with how far it is: due, begun, fitted, for whom; several are set at once. */
export function Stages({ job, mayWrite }: Props) {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const toggle = (id: number) =>
    setChosen((before) => {
      const next = new Set(before);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const isAll = chosen.size === job.runs.length && chosen.size > 0;
  return (
    <section aria-label={t("stages.title")} className="rounded-lg border border-line bg-paper">
      <div className="overflow-x-auto">
        <table className="w-full text-left text-[17px]">
          <thead className="text-[15px] text-soft">
            <tr className="border-b border-line">
              {mayWrite && (
                <th className="w-12 px-3 py-2 print:hidden">
                  <Tick
                    label={t("stages.all")}
                    checked={isAll}
                    onChange={() => setChosen(new Set(isAll ? [] : job.runs.map((run) => run.id)))}
                  />
                </th>
              )}
              <th className="px-3 py-2">{t("stages.run")}</th>
              <th className="px-3 py-2">{t("stages.stage")}</th>
              <th className="px-3 py-2">{t("stages.due")}</th>
              <th className="px-3 py-2">{t("stages.begun")}</th>
              <th className="px-3 py-2">{t("stages.fitted")}</th>
              <th className="px-3 py-2">{t("stages.for")}</th>
            </tr>
          </thead>
          <tbody>
            {job.runs.map((run) => (
              <Row
                key={run.id}
                run={run}
                {...(mayWrite && { tick: { checked: chosen.has(run.id), onChange: () => toggle(run.id) } })}
              />
            ))}
          </tbody>
        </table>
      </div>
      {mayWrite && chosen.size > 0 && (
        <SetAtOnce job={job} chosen={[...chosen]} onDone={() => setChosen(new Set())} />
      )}
    </section>
  );
}

interface TickProps {
  checked: boolean;
  onChange: () => void;
}

function Tick({ label, checked, onChange }: TickProps & { label: string }) {
  return (
    <label className="inline-flex min-h-11 min-w-11 items-center">
      <input
        type="checkbox"
        aria-label={label}
        className="size-6 accent-accent"
        checked={checked}
        onChange={onChange}
      />
    </label>
  );
}

function Row({ run, tick }: { run: RunStages; tick?: TickProps }) {
  const name = run.name || t("stages.unnamed");
  return (
    <tr className="border-b border-line/60">
      {tick && (
        <td className="px-3 print:hidden">
          <Tick label={t("stages.choose", { run: name })} {...tick} />
        </td>
      )}
      <td className="px-3 py-2">
        <Link to={`/runs/${run.id}/layout`} className="font-semibold underline-offset-4 hover:underline">
          {name}
        </Link>{" "}
        <span className="tape text-soft">
          {run.trade_size} {run.material}
        </span>
      </td>
      <td className="px-3 py-2">
        <StatusMark status={run.status} begun={run.begun} />
      </td>
      <td className={`px-3 py-2 whitespace-nowrap ${run.late ? "font-bold text-stop" : ""}`}>
        {run.due && dateOf(run.due)}
        {run.late && ` · ${t("stages.late")}`}
      </td>
      <td className="px-3 py-2 whitespace-nowrap">{run.begun_at && dayOf(run.begun_at)}</td>
      <td className="px-3 py-2 whitespace-nowrap">{run.fitted_at && dayOf(run.fitted_at)}</td>
      <td className="px-3 py-2">{run.assigned?.name}</td>
    </tr>
  );
}

const AS_IT_IS = "as it is";
const NOBODY = "nobody";

/** For whom the chosen runs are, and by when: what is not said stays as it is. */
function SetAtOnce({ job, chosen, onDone }: { job: JobTakes; chosen: number[]; onDone: () => void }) {
  const schedule = useSchedule(job.id);
  const people = usePeople().data?.members ?? [];
  const [due, setDue] = useState("");
  const [who, setWho] = useState(AS_IT_IS);
  const send = (said: Omit<ScheduleIn, "runs">) =>
    schedule.mutate({ runs: chosen, ...said }, { onSuccess: onDone });
  const said = {
    ...(due && { due }),
    ...(who !== AS_IT_IS && { member_id: who === NOBODY ? null : Number(who) }),
  };
  return (
    <div className="flex flex-wrap items-end gap-3 border-t border-line px-4 py-3 print:hidden">
      <strong className="min-h-11 content-center">{t("stages.chosen", { count: chosen.length })}</strong>
      <label className="block">
        <span className="mb-1 block text-[15px] font-semibold">{t("stages.due_on")}</span>
        <input
          type="date"
          value={due}
          onChange={(event) => setDue(event.target.value)}
          className="min-h-11 rounded-md border border-line bg-paper px-2.5"
        />
      </label>
      <div>
        <p className="mb-1 text-[15px] font-semibold">{t("stages.for_whom")}</p>
        <Select
          boxed
          label={t("stages.for_whom")}
          value={who}
          choices={[
            { value: AS_IT_IS, label: t("stages.as_it_is") },
            { value: NOBODY, label: t("stages.nobody") },
            ...people
              .filter((one) => one.role !== "viewer")
              .map((one) => ({ value: String(one.id), label: one.name })),
          ]}
          onChoose={setWho}
        />
      </div>
      <Button
        look="main"
        disabled={schedule.isPending || !Object.keys(said).length}
        onClick={() => send(said)}
      >
        {t("stages.set")}
      </Button>
      <Button disabled={schedule.isPending} onClick={() => send({ due: null })}>
        {t("stages.no_date")}
      </Button>
      {schedule.error && <Notice severity="stop">{schedule.error.message}</Notice>}
    </div>
  );
}
