import { useState } from "react";
import { Link, useParams } from "react-router";
import { type FileOf, useAskForFile, useFormats } from "@/api/files";
import { useJobs, useMe, useRun } from "@/api/queries";
import type { ExportIn } from "@/api/types";
import { jobTabs, runTabs } from "@/shell/pages";
import { Shell } from "@/shell/shell";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { t } from "@/words/files";
import { type Choice, GROUPS } from "./choices";
import { type Asked, MadeFile } from "./made-file";

type Size = NonNullable<ExportIn["size"]>;

/** A run given out for other programs and for paper. */
export function RunFiles() {
  const runId = Number(useParams().runId);
  const run = useRun(runId);
  const name = run.data?.document.name || t("page.unnamed");
  return (
    <Shell
      title={t("page.of", { name })}
      trail={
        <Link to={`/runs/${runId}/layout`} className="underline">
          {name}
        </Link>
      }
      tabs={run.data ? runTabs(runId, run.data.job_id) : []}
    >
      {run.error && !run.data ? <NotThere says={run.error.message} /> : <Files of="run" id={runId} />}
    </Shell>
  );
}

/** A job given out. */
export function JobFiles() {
  const jobId = Number(useParams().jobId);
  const jobs = useJobs();
  const job = jobs.data?.find((one) => one.id === jobId);
  const name = job?.name ?? "";
  return (
    <Shell
      title={t("page.of", { name })}
      trail={<strong className="text-ink">{name}</strong>}
      tabs={jobTabs(jobId)}
    >
      {jobs.data && !job ? <NotThere says={t("page.no_job")} /> : <Files of="job" id={jobId} />}
    </Shell>
  );
}

/** All that the crew has, given out. */
export function CrewFiles() {
  const name = useMe().data?.crew ?? "";
  return (
    <Shell title={t("page.of", { name })} trail={<strong className="text-ink">{name}</strong>}>
      <Files of="crew" id={0} />
    </Shell>
  );
}

const INTROS = { run: t("intro.run"), job: t("intro.job"), crew: t("intro.crew") };

function NotThere({ says }: { says: string }) {
  return (
    <main className="p-8">
      <Notice severity="stop">{says}</Notice>
    </main>
  );
}

function Files({ of, id }: { of: FileOf; id: number }) {
  const ask = useAskForFile(of, id);
  const formats = useFormats();
  const [size, setSize] = useState<Size>("letter");
  const [asked, setAsked] = useState<Asked[]>([]);
  const isThere = ({ to, part }: Choice) =>
    !formats.data || formats.data.some((one) => one.of === of && one.to === to && one.parts.includes(part));
  const wanted = (choice: Choice) =>
    ask.mutate(
      { to: choice.to, part: choice.part, size },
      { onSuccess: (file) => setAsked((before) => [{ file, what: choice.says }, ...before]) },
    );
  return (
    <main className="mx-auto w-full max-w-[70rem] px-4 py-5">
      <h1 className="text-2xl font-bold">{t("page.files")}</h1>
      <p className="mt-1 text-soft">{INTROS[of]}</p>
      <div className="mt-4 grid gap-x-8 gap-y-6 lg:grid-cols-[1fr_22rem]">
        <div className="flex flex-col gap-6">
          {GROUPS.filter((group) => group.choices[of]).map((group) => (
            <section key={group.title} aria-label={group.title}>
              <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
                <h2 className="text-lg font-bold">{group.title}</h2>
                {group.onPaper && (
                  <Segments
                    label={t("size.label")}
                    value={size}
                    choices={[
                      { value: "letter", label: t("size.letter") },
                      { value: "A4", label: t("size.a4") },
                    ]}
                    onChoose={setSize}
                  />
                )}
              </div>
              <div className="grid gap-2 sm:grid-cols-2">
                {group.choices[of]?.filter(isThere).map((choice) => (
                  <Choose
                    key={choice.part + choice.to}
                    choice={choice}
                    isHeld={ask.isPending}
                    onChoose={wanted}
                  />
                ))}
              </div>
            </section>
          ))}
        </div>
        <section
          aria-label={t("made.title")}
          className={`lg:border-l lg:border-line lg:pl-6 ${asked.length || ask.error ? "max-lg:order-first" : ""}`}
        >
          <h2 className="mb-2 text-lg font-bold">{t("made.title")}</h2>
          {ask.error && <Notice severity="stop">{ask.error.message}</Notice>}
          {asked.length === 0 && <p className="text-soft">{t("made.none")}</p>}
          <ul className="flex flex-col gap-3">
            {asked.map((one) => (
              <li key={one.file.id}>
                <MadeFile asked={one} />
              </li>
            ))}
          </ul>
        </section>
      </div>
    </main>
  );
}

interface ChooseProps {
  choice: Choice;
  isHeld: boolean;
  onChoose: (choice: Choice) => void;
}

function Choose({ choice, isHeld, onChoose }: ChooseProps) {
  return (
    <button
      type="button"
      disabled={isHeld}
      onClick={() => onChoose(choice)}
      className="flex min-h-14 flex-col justify-center rounded-md border border-line bg-paper px-4 py-2 text-left hover:border-ink disabled:opacity-60"
    >
      <span className="font-semibold">{choice.says}</span>
      <span className="text-[15px] text-soft">{choice.more}</span>
    </button>
  );
}
