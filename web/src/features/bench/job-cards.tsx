import { useParams } from "react-router";
import { useBenches, useJob } from "@/api/queries";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { PrintIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { t } from "@/words/bench";
import { chosenLanguage } from "@/words/language";
import { Card } from "./card";

/** The bench cards of all runs of a job, in one print. */
export function JobCards() {
  const jobId = Number(useParams().jobId);
  const job = useJob(jobId);
  const runs = job.data?.runs ?? [];
  const benches = useBenches(runs.map((run) => run.id));
  const ready = benches.flatMap((one) => one.data ?? []);
  const cards = ready.flatMap((bench) => bench.sticks.map((stick) => ({ bench, stick })));
  const without = ready.filter((bench) => !bench.sticks.length);
  const isWhole = job.data !== undefined && ready.length === runs.length;
  return (
    <Shell title={t("job_cards.title", { job: job.data?.name ?? t("job_cards.job") })}>
      <main
        lang={chosenLanguage()}
        className="mx-auto w-full max-w-[56rem] px-4 py-5 print:max-w-none print:p-0"
      >
        <div className="mb-4 flex flex-wrap items-center gap-3 print:hidden">
          <h1 className="text-2xl font-bold">
            {t("job_cards.title", { job: job.data?.name ?? t("job_cards.job") })}
          </h1>
          <Button
            look="main"
            className="ml-auto min-h-12"
            disabled={!cards.length}
            onClick={() => window.print()}
          >
            <PrintIcon /> {t("job_cards.print", { count: cards.length })}
          </Button>
          {!isWhole && (
            <p className="w-full text-soft">
              {t("job_cards.coming", { done: ready.length, all: runs.length })}
            </p>
          )}
          {benches.map(
            ({ error }, at) =>
              error && (
                <Notice key={runs[at]?.id} severity="stop">
                  {error.message}
                </Notice>
              ),
          )}
          {without.length > 0 && (
            <p className="w-full text-soft">
              {t("job_cards.none", { runs: without.map((bench) => bench.name || t("card.run")).join(", ") })}
            </p>
          )}
        </div>
        <div className="flex flex-col gap-6 print:block">
          {cards.map(({ bench, stick }) => (
            <div
              key={`${bench.run_id}.${stick.sheet.piece}`}
              data-theme="light"
              className="overflow-x-auto rounded-md border border-line bg-white text-black print:overflow-visible print:border-0"
            >
              <Card bench={bench} stick={stick} tapeOf={(bend) => bend.use.at.reads} />
            </div>
          ))}
        </div>
      </main>
    </Shell>
  );
}
