import { Link } from "react-router";
import { useMe } from "@/api/queries";
import type { Job } from "@/api/types";
import { StatusMark } from "@/draw/status-mark";
import type { JustBinned } from "@/features/bin/bin";
import { things } from "@/trade/counts";
import { dateOf, timeOf } from "@/ui/moments";
import { t } from "@/words/jobs";
import type { RunLine } from "./rack-order";
import { RunMenu } from "./run-menu";

interface Props {
  run: RunLine;
  job: Job;
  onBinned: (binned: JustBinned) => void;
}

/** A run in its job's list. */
export function RunRow({ run, job, onBinned }: Props) {
  const role = useMe().data?.role;
  return (
    <li className="flex flex-wrap items-center gap-2 border-b border-line/60 pr-2 hover:bg-tint/50">
      <Link
        to={`/runs/${run.id}/layout`}
        className={`flex min-h-14 min-w-0 flex-1 flex-wrap items-center gap-x-4 px-4 py-1.5 ${run.rack_lead ? "pl-10" : ""}`}
      >
        {run.rack_number && (
          <span
            className="tape inline-flex h-7 w-7 items-center justify-center rounded-full border-2 border-soft text-[15px] font-bold"
            title={t("run.beside", { rack_number: run.rack_number })}
          >
            {run.rack_number}
          </span>
        )}
        <span className="min-w-0 text-lg font-semibold wrap-anywhere">{run.name || t("run.unnamed")}</span>
        <span className="tape text-soft">
          {run.trade_size} {run.material}
        </span>
        <StatusMark status={run.status} begun={run.begun} />
        {run.behind.length > 0 && (
          <span className="order-last basis-full text-[15px] font-semibold text-caution">
            {t("run.changed_under", { sticks: run.behind.join(", ") })}
          </span>
        )}
        {run.reserved_behind.length > 0 && (
          <span className="order-last basis-full text-[15px] font-semibold text-caution">
            {t("run.reserved_under", { pieces: run.reserved_behind.join(", ") })}
          </span>
        )}
        <span className="w-60 whitespace-nowrap text-right text-[15px] text-soft max-md:hidden">
          {t("run.saved", { time: timeOf(run.saved_at) })}
        </span>
        <AboutLine run={run} />
      </Link>
      {role !== "viewer" && <RunMenu run={run} job={job} onBinned={onBinned} />}
    </li>
  );
}

/** For whom it is, its note, and how many photos it has; nothing where nothing is said. */
function AboutLine({ run }: { run: RunLine }) {
  const photos = run.photos > 0 && things(run.photos, "photo");
  const said = [
    run.due && t("run.due", { day: dateOf(run.due) }),
    run.assigned && t("run.for", { assigned: run.assigned.name }),
    photos,
    run.note,
  ].filter(Boolean);
  if (!said.length) return null;
  return <span className="basis-full truncate text-[15px] text-soft">{said.join(" · ")}</span>;
}
