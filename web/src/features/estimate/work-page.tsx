import { useMemo } from "react";
import { Link, useParams } from "react-router";
import { useTakes } from "@/api/estimate";
import { useMe } from "@/api/queries";
import { useSpace } from "@/api/space";
import type { JobSpace, JobTakes } from "@/api/types";
import { jobScene } from "@/scene/job-scene";
import { ScenePrint } from "@/scene/scene-print";
import { jobTabs } from "@/shell/pages";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { PrintIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { t } from "@/words/estimate";
import { Stages } from "./stages";
import { WhatItTakes } from "./what-it-takes";

/** A job's work: how far each run is, by when and for whom; and what the whole takes. One print of all. */
export function WorkPage() {
  const jobId = Number(useParams().jobId);
  const takes = useTakes(jobId);
  const mayWrite = useMe().data?.role !== "viewer";
  const job = takes.data;
  const space = useSpace(jobId).data;
  return (
    <Shell
      title={t("page.title", { job: job?.name ?? "" })}
      trail={<strong className="text-ink">{job?.name}</strong>}
      tabs={jobTabs(jobId)}
    >
      <main className="mx-auto flex w-full max-w-6xl flex-col gap-5 px-4 py-6 print:max-w-none print:p-0">
        <div className="flex flex-wrap items-center gap-3">
          <h1 className="text-2xl font-bold">
            {job ? t("page.work_of", { job: job.name }) : t("page.work")}
          </h1>
          <span className="ml-auto flex flex-wrap items-center gap-3 print:hidden">
            <Link to="/estimate" className="underline">
              {t("page.figures")}
            </Link>
            <Button onClick={() => window.print()}>
              <PrintIcon /> {t("page.print")}
            </Button>
          </span>
        </div>
        {takes.error && <Notice severity="stop">{takes.error.message}</Notice>}
        {job && <Progress job={job} />}
        {job && <Stages job={job} mayWrite={mayWrite} />}
        {space && space.space.boxes.length > 0 && (
          <div data-theme="light" className="hidden bg-white text-black print:block">
            <JobOnPaper space={space.space} name={space.name} />
          </div>
        )}
        {job && <WhatItTakes job={job} />}
      </main>
    </Shell>
  );
}

const PAPER = { width: 900, height: 560 };
const nothing = () => undefined;

/** The whole job, as its runs stand, on the print of all. */
function JobOnPaper({ space, name }: { space: JobSpace; name: string }) {
  const scene = useMemo(() => jobScene(space, null, nothing), [space]);
  return <ScenePrint scene={scene} size={PAPER} label={name} />;
}

/** How much of the labour is done, as counted from bench and stock. */
function Progress({ job }: { job: JobTakes }) {
  const percent = Math.round(job.done * 100);
  return (
    <div>
      <p className="mb-1 text-[17px]">{t("page.done", { percent })}</p>
      <div className="h-3 overflow-hidden rounded-full border border-line bg-paper" aria-hidden="true">
        <div className="h-full bg-accent" style={{ width: `${percent}%` }} />
      </div>
    </div>
  );
}
