import { Link } from "react-router";
import { useSpaceRemedies, useTakeRemedy } from "@/api/space";
import type { SpaceClash, SpaceOut, TriedRemedy } from "@/api/types";
import type { Chosen } from "@/scene/job-scene";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/space";

interface Props {
  job: SpaceOut;
  mayWrite: boolean;
  chosen: Chosen | null;
  choose: (chosen: Chosen | null) => void;
}

/** Where runs come too near to each other, the worst first, and what would do. */
export function Clashes({ job, mayWrite, chosen, choose }: Props) {
  const take = useTakeRemedy(job.id);
  return (
    <ul className="flex flex-col gap-2 px-4">
      {job.space.clashes.map((clash, i) => {
        const isChosen = chosen?.of === "clash" && chosen.key === String(i);
        return (
          <li
            key={clash.says}
            className={`rounded-md border p-2.5 ${isChosen ? "border-accent" : "border-line"}`}
          >
            <Notice severity={clash.severity}>{clash.says}</Notice>
            <span className="mt-1.5 flex flex-wrap items-center gap-2">
              {clash.kind !== "knockout" && (
                <Button aria-pressed={isChosen} onClick={() => choose({ of: "clash", key: String(i) })}>
                  {t("clash.show")}
                </Button>
              )}
              <Steps clash={clash} job={job} />
            </span>
            {clash.kind === "runs" && mayWrite && (
              <Remedies job={job} clash={clash} onTake={take.mutate} isBusy={take.isPending} />
            )}
          </li>
        );
      })}
      {take.error && <Notice severity="stop">{take.error.message}</Notice>}
    </ul>
  );
}

/** Each of both runs, opened at the step at which it is. */
function Steps({ clash, job }: { clash: SpaceClash; job: SpaceOut }) {
  return Object.entries(clash.steps).map(([run, step]) => (
    <Link
      key={run}
      to={`/runs/${run}/layout${step === null ? "" : `?step=${step + 1}`}`}
      className="inline-flex min-h-11 items-center font-semibold underline"
    >
      {job.space.runs.find((one) => one.key === run)?.name || t("run.unnamed")}
    </Link>
  ));
}

interface RemediesProps {
  job: SpaceOut;
  clash: SpaceClash;
  onTake: (remedy: TriedRemedy) => void;
  isBusy: boolean;
}

function Remedies({ job, clash, onTake, isBusy }: RemediesProps) {
  const ask = useSpaceRemedies(job.id);
  const cut = [clash.run, clash.other].filter((run) => job.fixed.includes(Number(run)));
  const named = (key: string) => job.space.runs.find((run) => run.key === key)?.name ?? "";
  return (
    <div className="mt-1.5">
      {!ask.data && (
        <Button
          disabled={ask.isPending}
          onClick={() => ask.mutate({ one: Number(clash.run), other: Number(clash.other) })}
        >
          {ask.isPending ? t("remedy.trying") : t("remedy.ask")}
        </Button>
      )}
      {ask.data && ask.data.length === 0 && <p className="text-[17px]">{t("remedy.none")}</p>}
      <ul className="flex flex-col gap-1.5">
        {ask.data?.map((remedy) => (
          <li key={remedy.says} className="flex items-center gap-2">
            <span className="min-w-0 flex-1">
              <span className="tape block font-semibold">{remedy.says}</span>
              <span className="block text-[15px] text-soft">
                {t("remedy.keeps", { least: remedy.least.reads })}
              </span>
            </span>
            <Button className="border-accent! text-accent!" disabled={isBusy} onClick={() => onTake(remedy)}>
              {t("remedy.take")}
            </Button>
          </li>
        ))}
      </ul>
      {cut.length > 0 && (
        <p className="mt-1 text-[15px] text-soft">{t("remedy.cut", { runs: cut.map(named).join(", ") })}</p>
      )}
      {ask.error && <Notice severity="stop">{ask.error.message}</Notice>}
    </div>
  );
}
