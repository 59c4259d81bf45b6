import { Command } from "cmdk";
import { useMatch, useNavigate } from "react-router";
import { useJobs, useMe, useRun, useShoes } from "@/api/queries";
import type { Job, Run } from "@/api/types";
import { kindWord } from "@/trade/kinds";
import { t } from "@/words/shell";
import { useBeginRun } from "./begin-run";
import { CREW_PAGES, CREW_TABS, runTabs } from "./pages";

/** Goes to whatever is named: runs, the steps of the run that is open, shoes, pages. */
export function Jump({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const runId = Number(useMatch("/runs/:runId/*")?.params.runId);
  const go = (to: string) => {
    onClose();
    navigate(to);
  };
  return (
    <Command.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label={t("jump.title")}
      overlayClassName="fixed inset-0 z-40 bg-black/40"
      contentClassName="fixed top-[12vh] left-1/2 z-50 w-[min(34rem,92vw)] -translate-x-1/2 rounded-lg border border-ink bg-paper p-2 shadow-xl"
    >
      <Command.Input
        placeholder={t("jump.what")}
        className="w-full border-b border-line bg-transparent px-2 py-2.5 text-lg outline-none"
      />
      <Command.List className="max-h-[50vh] overflow-y-auto py-1">
        <Command.Empty className="px-2 py-3 text-soft">{t("jump.nothing")}</Command.Empty>
        <NewRuns onClose={onClose} />
        {runId > 0 && <OfThisRun runId={runId} go={go} />}
        <Runs go={go} />
        <Shoes go={go} />
        <Group heading={t("jump.pages")}>
          {[...CREW_TABS, ...CREW_PAGES].map(({ label, to }) => (
            <Goal key={to} says={label} onSelect={() => go(to)} />
          ))}
        </Group>
      </Command.List>
    </Command.Dialog>
  );
}

interface Going {
  go: (to: string) => void;
}

function OfThisRun({ runId, go }: Going & { runId: number }) {
  const run = useRun(runId).data;
  if (!run) return null;
  return (
    <Group heading={run.document.name || t("jump.this_run")}>
      {placesOf(run).map(({ says, to }) => (
        <Goal key={to} says={says} onSelect={() => go(to)} />
      ))}
    </Group>
  );
}

function placesOf({ id, job_id, document }: Run) {
  const layout = `/runs/${id}/layout`;
  return [
    ...runTabs(id, job_id).map(({ label, to }) => ({ says: label, to })),
    { says: t("jump.note"), to: `${layout}?beside=note` },
    { says: t("jump.rack"), to: `${layout}?beside=rack` },
    ...document.steps.map((step, index) => ({
      says: t("jump.step", { index: index + 1, kind: kindWord(step.kind) }),
      to: `${layout}?step=${index + 1}`,
    })),
  ];
}

/** A new run of each job, for who may write. */
function NewRuns({ onClose }: { onClose: () => void }) {
  const jobs = useJobs().data ?? [];
  if (useMe().data?.role === "viewer") return null;
  return jobs
    .filter((job) => !job.archived_at)
    .map((job) => <NewRun key={job.id} job={job} onClose={onClose} />);
}

function NewRun({ job, onClose }: { job: Job; onClose: () => void }) {
  const { begin, isBusy } = useBeginRun(job);
  return (
    <Goal
      says={t("jump.new_run", { job: job.name })}
      onSelect={() => {
        if (isBusy) return;
        begin();
        onClose();
      }}
    />
  );
}

function Runs({ go }: Going) {
  const jobs = useJobs().data ?? [];
  return jobs.map((job) => (
    <Group key={job.id} heading={job.name}>
      {job.runs.map((run) => (
        <Goal
          key={run.id}
          says={run.name || t("jump.unnamed")}
          also={job.name}
          onSelect={() => go(`/runs/${run.id}/layout`)}
        />
      ))}
      <Goal says={t("jump.stock")} also={job.name} onSelect={() => go(`/jobs/${job.id}/stock`)} />
    </Group>
  ));
}

function Shoes({ go }: Going) {
  const shoes = useShoes().data ?? [];
  return (
    <Group heading={t("help.shoes")}>
      {shoes.map((shoe) => (
        <Goal key={shoe.id} says={shoe.name} onSelect={() => go("/shoes")} />
      ))}
    </Group>
  );
}

function Group({ heading, children }: { heading: string; children: React.ReactNode }) {
  return (
    <Command.Group
      heading={heading}
      className="**:[[cmdk-group-heading]]:px-2 **:[[cmdk-group-heading]]:pt-2 **:[[cmdk-group-heading]]:text-[15px] **:[[cmdk-group-heading]]:text-soft"
    >
      {children}
    </Command.Group>
  );
}

function Goal({ says, also = "", onSelect }: { says: string; also?: string; onSelect: () => void }) {
  return (
    <Command.Item
      value={`${says} ${also}`}
      onSelect={onSelect}
      className="flex min-h-11 cursor-pointer items-center rounded-sm px-2 text-lg aria-selected:bg-tint"
    >
      {says}
    </Command.Item>
  );
}
