import { useState } from "react";
import { useUnplaceBox } from "@/api/space";
import type { Me, SpaceOut } from "@/api/types";
import type { Chosen } from "@/scene/job-scene";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/space";
import { BoxForm, type PipeAtBox, placeInWords } from "./box-form";

interface Props {
  job: SpaceOut;
  tape: Me["new_runs"];
  mayWrite: boolean;
  chosen: Chosen | null;
  choose: (chosen: Chosen | null) => void;
}

/** The job's boxes: those that were placed, with where; and those that runs name and nobody placed yet. */
export function Boxes({ job, tape, mayWrite, chosen, choose }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  const names = new Map(job.space.runs.map((run) => [run.key, run.name || t("run.unnamed")]));
  const pipesOf = (runs: { run: string; end: "A" | "B" }[]): PipeAtBox[] =>
    runs.map(({ run, end }) => ({ run, end, name: names.get(run) ?? "" }));
  const form = (key: string, name: string, runs: PipeAtBox[]) =>
    open === key && (
      <BoxForm
        jobId={job.id}
        name={name}
        box={job.boxes.find((box) => box.key === key)}
        pipes={runs}
        tape={tape.tape}
        feet={tape.feet}
        onDone={() => setOpen(null)}
      />
    );
  return (
    <ul className="flex flex-col">
      {job.space.boxes.map((box) => {
        const typed = job.boxes.find((one) => one.key === box.key);
        const pipes = pipesOf(box.runs);
        return (
          <li key={box.key} className="border-b border-line/60 px-4 py-2">
            <div className="flex items-start gap-2">
              <button
                type="button"
                aria-pressed={chosen?.of === "box" && chosen.key === box.key}
                onClick={() => choose({ of: "box", key: box.key })}
                className="min-h-11 min-w-0 flex-1 text-left aria-pressed:text-accent"
              >
                <strong className="text-[17px]">{box.name}</strong>
                <span className="tape block text-soft">{typed && placeInWords(typed.place)}</span>
              </button>
              {mayWrite && (
                <Button look="quiet" onClick={() => setOpen(open === box.key ? null : box.key)}>
                  {t("box.change")}
                </Button>
              )}
            </div>
            <p className="text-[15px] text-soft">
              {pipes.map((pipe) => pipe.name).join(", ") || t("box.no_run")}
              {typed && ` · ${t("box.by", { by: typed.by })}`}
            </p>
            {form(box.key, box.name, pipes)}
            {open === box.key && typed && <TakeAway jobId={job.id} id={typed.id} version={typed.version} />}
          </li>
        );
      })}
      {job.space.unplaced.map((box) => (
        <li key={box.key} className="border-b border-line/60 px-4 py-2">
          <div className="flex items-center gap-2">
            <span className="min-w-0 flex-1">
              <strong className="text-[17px]">{box.name}</strong>
              <span className="block text-[15px] text-caution">{t("box.not_placed")}</span>
            </span>
            {mayWrite && (
              <Button onClick={() => setOpen(open === box.key ? null : box.key)}>{t("box.place")}</Button>
            )}
          </div>
          {form(box.key, box.name, pipesOf(box.runs))}
        </li>
      ))}
    </ul>
  );
}

function TakeAway({ jobId, id, version }: { jobId: number; id: number; version: number }) {
  const unplace = useUnplaceBox(jobId);
  return (
    <>
      <Button
        look="quiet"
        className="mt-2 text-stop"
        disabled={unplace.isPending}
        onClick={() => unplace.mutate({ id, version })}
      >
        {t("box.take_away")}
      </Button>
      {unplace.error && <Notice severity="stop">{unplace.error.message}</Notice>}
    </>
  );
}
