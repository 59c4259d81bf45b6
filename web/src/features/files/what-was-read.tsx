import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { addressOfPicture, useTakeImport } from "@/api/imports";
import { useJobs } from "@/api/queries";
import type { ImportOut, RunRead } from "@/api/types";
import { Button } from "@/ui/button";
import { CheckBox } from "@/ui/check-box";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { Select } from "@/ui/select";
import { t } from "@/words/files";

/** What a file says, before it becomes runs of a job; and what became of it. */
export function WhatWasRead({ file }: { file: ImportOut }) {
  const [chosen, setChosen] = useState(() => new Set(file.runs.map((run) => run.number)));
  const isTaken = file.state === "taken";
  const take = useTakeImport(file.id);
  const left = take.data?.boxes_left ?? [];
  const toggle = (number: number, wanted: boolean) => {
    const next = new Set(chosen);
    if (wanted) next.add(number);
    else next.delete(number);
    setChosen(next);
  };
  return (
    <>
      {file.passed_over.length > 0 && <PassedOver file={file} />}
      {isTaken && <BecameOf file={file} />}
      {left.length > 0 && <Notice severity="note">{t("take.boxes_left", { boxes: left.join(", ") })}</Notice>}
      {!isTaken && file.runs.length > 0 && <Take file={file} chosen={chosen} take={take} />}
      <ul className="grid gap-4 lg:grid-cols-2">
        {file.runs.map((run) => (
          <li key={run.number} className="rounded-lg border border-line bg-paper p-4">
            <RunAsRead
              file={file}
              run={run}
              isChosen={chosen.has(run.number)}
              onChoose={isTaken ? null : (wanted) => toggle(run.number, wanted)}
            />
          </li>
        ))}
      </ul>
    </>
  );
}

interface AsRead {
  file: ImportOut;
  run: RunRead;
  isChosen: boolean;
  onChoose: ((wanted: boolean) => void) | null;
}

function RunAsRead({ file, run, isChosen, onChoose }: AsRead) {
  const name = run.name || t("read.unnamed", { number: run.number });
  const about = [`${run.trade_size} ${run.material}`, t("read.bends", { count: run.bends })];
  if (run.reads) about.push(t("read.long", { length: run.reads }));
  return (
    <article aria-label={name} className="flex flex-col gap-2">
      {onChoose ? (
        <CheckBox checked={isChosen} onCheck={onChoose}>
          <strong className="text-lg">{name}</strong>
        </CheckBox>
      ) : (
        <strong className="text-lg">
          {run.run_id ? (
            <Link to={`/runs/${run.run_id}/layout`} className="underline">
              {name}
            </Link>
          ) : (
            name
          )}
        </strong>
      )}
      <p className="tape text-soft">{about.join(" · ")}</p>
      {run.stops.map((says) => (
        <Notice key={says} severity="stop">
          {says}
        </Notice>
      ))}
      {run.told.map((says) => (
        <Notice key={says} severity="caution">
          {says}
        </Notice>
      ))}
      {run.is_drawn && (
        <img
          src={`${addressOfPicture(file.id, run.number)}?${new URLSearchParams(file.meant as Record<string, string>)}`}
          alt={t("read.picture", { name })}
          className="max-h-72 w-full rounded-sm border border-line/60 bg-white object-contain"
        />
      )}
      <pre className="tape overflow-x-auto text-[15px] whitespace-pre-wrap">{run.note}</pre>
    </article>
  );
}

const MOST_SHOWN = 8;

function PassedOver({ file }: { file: ImportOut }) {
  const [isWhole, setIsWhole] = useState(false);
  const shown = isWhole ? file.passed_over : file.passed_over.slice(0, MOST_SHOWN);
  return (
    <section aria-label={t("read.passed_over")} className="rounded-md border border-caution/50 p-3">
      <h2 className="font-bold">{t("read.passed_over")}</h2>
      <ul className="mt-1 flex flex-col gap-1 text-[15px]">
        {shown.map((one) => (
          <li key={`${one.where} ${one.why}`}>
            {one.where && <strong className="tape">{one.where}: </strong>}
            {one.why}
          </li>
        ))}
      </ul>
      {shown.length < file.passed_over.length && (
        <Button look="quiet" className="min-h-11" onClick={() => setIsWhole(true)}>
          {t("read.all", { count: file.passed_over.length })}
        </Button>
      )}
    </section>
  );
}

const NEW = "new";

interface Taking {
  file: ImportOut;
  chosen: ReadonlySet<number>;
  take: ReturnType<typeof useTakeImport>;
}

function Take({ file, chosen, take }: Taking) {
  const [search] = useSearchParams();
  const jobs = (useJobs().data ?? []).filter((job) => !job.archived_at);
  const [picked, setPicked] = useState(search.get("job") ?? "");
  const [named, setNamed] = useState(file.name.replace(/\.\w+$/, "").slice(0, 80));
  const [boxes, setBoxes] = useState(true);
  const where = picked || (jobs[0] ? String(jobs[0].id) : NEW);
  const isNew = where === NEW;
  const choices = [
    ...jobs.map((job) => ({ value: String(job.id), label: job.name })),
    { value: NEW, label: t("take.new_job") },
  ];
  const runs = file.runs.map((run) => run.number).filter((number) => chosen.has(number));
  const into = isNew ? { job_name: named.trim() } : { job_id: Number(where) };
  return (
    <section aria-label={t("take.title")} className="flex flex-wrap items-end gap-4">
      <div>
        <span className="mb-1 block text-[15px] font-semibold">{t("take.into")}</span>
        <Select boxed label={t("take.into")} value={where} choices={choices} onChoose={setPicked} />
      </div>
      {isNew && (
        <Field
          label={t("take.called")}
          maxLength={80}
          value={named}
          onChange={(event) => setNamed(event.target.value)}
        />
      )}
      {file.boxes > 0 && (
        <CheckBox checked={boxes} onCheck={setBoxes}>
          {t("take.boxes", { count: file.boxes })}
        </CheckBox>
      )}
      <Button
        look="main"
        className="min-h-12 text-lg!"
        disabled={take.isPending || !runs.length || (isNew && !named.trim())}
        onClick={() => take.mutate({ ...into, runs, boxes })}
      >
        {t("take.do", { count: runs.length })}
      </Button>
      {take.error && <Notice severity="stop">{take.error.message}</Notice>}
    </section>
  );
}

function BecameOf({ file }: { file: ImportOut }) {
  const job = useJobs().data?.find((one) => one.id === file.job_id);
  const count = file.runs.filter((run) => run.run_id).length;
  return (
    <p role="status" className="text-lg">
      {job ? t("take.done", { count, job: job.name }) : t("take.gone")}{" "}
      {job && (
        <Link to="/" className="underline">
          {t("take.to_jobs")}
        </Link>
      )}
    </p>
  );
}
