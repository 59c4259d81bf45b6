import { type FormEvent, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { ApiError } from "@/api/client";
import { useAddJob } from "@/api/job-queries";
import { useJobs, useMe } from "@/api/queries";
import { Bin, type JustBinned, Undo } from "@/features/bin/bin";
import { useDropToImport } from "@/shell/dropped-file";
import { useWaiting } from "@/shell/not-sent";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { PlusIcon } from "@/ui/icons";
import { InSlices } from "@/ui/in-slices";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { Select } from "@/ui/select";
import { t } from "@/words/jobs";
import { Aside } from "./aside";
import { BegunWithoutJob, JobHere } from "./begun-runs";
import { JobFields, type JobWritten, trimmed } from "./job-fields";
import { JobSection } from "./job-section";
import { matching } from "./matching";
import { forPerson, ORDERS, type Order, ordered } from "./ordering";

const WHOSE = [
  { value: "all" as const, label: t("whose.crew") },
  { value: "mine" as const, label: t("whose.mine") },
];
/** Fewer runs are seen at a glance. */
const WORTH_SEARCHING = 3;

/** The crew's jobs at work, each with its runs; those that were put aside below. */
export function JobsPage() {
  const jobs = useJobs();
  const me = useMe().data;
  const mayWrite = me?.role !== "viewer";
  const here = useWaiting("job");
  const drop = useDropToImport();
  const [binned, setBinned] = useState<JustBinned | null>(null);
  const view = useView();
  const { sought, whose, order } = view;
  const atWork = (jobs.data ?? []).filter((job) => !job.archived_at);
  const whoseJobs = whose === "mine" ? forPerson(atWork, me?.id) : atWork;
  const shown = ordered(matching(whoseJobs, sought), order);
  const isLong = atWork.reduce((sum, job) => sum + job.runs.length, 0) > WORTH_SEARCHING;
  return (
    <Shell title={t("page.title")}>
      <main
        {...(mayWrite ? drop.target : {})}
        className={`mx-auto w-full max-w-5xl px-4 py-8 ${drop.isOver ? "outline-2 outline-accent outline-dashed" : ""}`}
      >
        <h1 className="text-3xl font-bold">{t("page.title")}</h1>
        <p className="mt-1 text-soft">{me?.crew}</p>
        {jobs.error && <Notice severity="stop">{jobs.error.message}</Notice>}
        {binned && (
          <Undo key={`${binned.kind} ${binned.id}`} binned={binned} onDone={() => setBinned(null)} />
        )}
        {(isLong || view.isNarrowed) && <Narrowing view={view} />}
        {sought && !shown.length && <p className="mt-4 text-lg">{t("page.nothing_found")}</p>}
        {whose === "mine" && !sought && !shown.length && (
          <p className="mt-4 text-lg">{t("page.nothing_mine")}</p>
        )}
        {jobs.data && <BegunWithoutJob atWork={atWork} />}
        <InSlices>
          <div className="mt-6 flex flex-col gap-8">
            {shown.map((job) => (
              <JobSection key={job.id} job={job} folded={!sought && whose === "all"} onBinned={setBinned} />
            ))}
            {here.map((job) => (
              <JobHere key={job.id} job={job} />
            ))}
            {jobs.data && atWork.length === 0 && (
              <p className="text-lg">{jobs.data.length ? t("page.none_active") : t("page.none")}</p>
            )}
          </div>
          {mayWrite && <NewJob />}
          {mayWrite && (
            <p className="mt-3">
              <Link to="/import" className="underline">
                {t("page.import")}
              </Link>
              {" · "}
              <Link to="/shared" className="underline">
                {t("shared.title")}
              </Link>
            </p>
          )}
          <Aside jobs={(jobs.data ?? []).filter((job) => job.archived_at)} />
          <Bin kinds={["job", "run"]} />
        </InSlices>
      </main>
    </Shell>
  );
}

/** What is looked for stands here; whose runs and in which order stand in the address. */
function useView() {
  const [search, setSearch] = useSearchParams();
  const [sought, setSought] = useState("");
  const whose = search.get("whose") === "mine" ? ("mine" as const) : ("all" as const);
  const named = search.get("order");
  const order: Order = ORDERS.find((one) => one.value === named)?.value ?? "added";
  const set = (key: string, value: string, usual: string) =>
    setSearch(
      (before) => {
        if (value === usual) before.delete(key);
        else before.set(key, value);
        return before;
      },
      { replace: true },
    );
  return { sought, setSought, whose, order, set, isNarrowed: Boolean(sought) || whose === "mine" };
}

function Narrowing({ view }: { view: ReturnType<typeof useView> }) {
  return (
    <div className="mt-4 flex flex-wrap items-end gap-x-5 gap-y-3">
      <Field
        label={t("page.find")}
        type="search"
        className="w-full max-w-80"
        value={view.sought}
        onChange={(event) => view.setSought(event.target.value)}
      />
      <Segments
        label={t("whose.title")}
        value={view.whose}
        choices={WHOSE}
        onChoose={(whose) => view.set("whose", whose, "all")}
      />
      <span className="min-h-10 content-center text-[17px]">
        {t("whose.runs")}{" "}
        <Select
          label={t("order.title")}
          value={view.order}
          choices={ORDERS}
          onChoose={(order) => view.set("order", order, "added")}
        />
      </span>
    </div>
  );
}

const NO_JOB: JobWritten = { name: "", place: "" };

function NewJob() {
  const add = useAddJob();
  const [written, setWritten] = useState(NO_JOB);
  const error = add.error instanceof ApiError ? add.error : null;

  function submit(event: FormEvent) {
    event.preventDefault();
    add.mutate(trimmed(written), { onSuccess: () => setWritten(NO_JOB) });
  }

  return (
    <form onSubmit={submit} className="mt-10 flex flex-wrap items-end gap-3">
      <JobFields
        labels={[t("new.title"), t("new.place")]}
        job={written}
        onChange={setWritten}
        error={error}
      />
      <Button type="submit" disabled={!written.name.trim() || add.isPending} className="min-h-10">
        <PlusIcon /> {t("new.do")}
      </Button>
    </form>
  );
}
