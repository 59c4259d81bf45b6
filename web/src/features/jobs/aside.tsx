import { usePutAside } from "@/api/about";
import { useMe } from "@/api/queries";
import type { Job } from "@/api/types";
import { things } from "@/trade/counts";
import { Button } from "@/ui/button";
import { dayOf } from "@/ui/moments";
import { t } from "@/words/jobs";

/** Jobs that were put aside when they were done; whoever works may take one up again. */
export function Aside({ jobs }: { jobs: Job[] }) {
  const mayWrite = useMe().data?.role !== "viewer";
  const putAside = usePutAside();
  if (!jobs.length) return null;
  return (
    <details className="mt-10">
      <summary className="min-h-11 cursor-pointer content-center text-lg font-bold">
        {t("aside.title", { jobs: things(jobs.length, "job") })}
      </summary>
      <ul className="mt-2">
        {jobs.map((job) => (
          <li
            key={job.id}
            className="flex flex-wrap items-center gap-x-4 border-b border-line/60 py-2 text-[17px]"
          >
            <strong>{job.name}</strong>
            <span className="text-soft">{job.place}</span>
            <span className="text-soft">
              {t("aside.line", { runs: things(job.runs.length, "run") })}{" "}
              {job.archived_at && dayOf(job.archived_at)}
            </span>
            {mayWrite && (
              <Button
                className="ml-auto"
                aria-label={t("aside.reopen.label", { job: job.name })}
                disabled={putAside.isPending}
                onClick={() => putAside.mutate({ id: job.id, aside: false })}
              >
                {t("aside.reopen")}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}
