import { useQuery } from "@tanstack/react-query";
import { useSyncExternalStore } from "react";
import { begunRuns } from "@/api/begun-here";
import { core } from "@/api/core/keeping";
import { plainCuts } from "@/api/plain-cuts";
import { useJobs } from "@/api/queries";
import { useRack } from "@/api/stock-queries";
import type { CutKind, Cutting } from "@/api/types";
import { useReach } from "@/api/use-reach";
import { things } from "@/trade/counts";
import { Notice } from "@/ui/notice";
import { t } from "@/words/stock";
import { nameOf, Sources } from "./sources";

interface Props {
  jobId: number;
  cutting: Cutting | undefined;
}

/** Where the server is out of reach: what this device would cut from what, plainly; nothing of it is reserved. */
export function PlainCuts({ jobId, cutting }: Props) {
  const reach = useReach();
  const { state } = useSyncExternalStore(core.subscribe, core.snapshot);
  if (reach) return null;
  if (state !== "here") return <Notice severity="note">{t("plain.no_core")}</Notice>;
  return <MadeHere jobId={jobId} cutting={cutting} />;
}

function MadeHere({ jobId, cutting }: Props) {
  const job = useJobs().data?.find((one) => one.id === jobId);
  const scraps = useRack().data?.scraps;
  const begun = useSyncExternalStore(begunRuns.subscribe, begunRuns.snapshot);
  const mine = begun.filter((run) => run.job_id === jobId);
  const made = useQuery({
    queryKey: ["plain cuts", jobId, job?.runs, mine.map((run) => run.saved_at), scraps, cutting?.terms],
    queryFn: () => (job ? plainCuts(job, mine, scraps ?? [], cutting) : null),
    enabled: job !== undefined,
    networkMode: "always",
    retry: false,
    gcTime: 0,
  });
  if (made.error) return <Notice severity="stop">{made.error.message}</Notice>;
  if (!made.data) return <p role="status">{t("plain.made")}</p>;
  const { kinds, left_out } = made.data;
  return (
    <section aria-label={t("plain.title")} className="mt-4">
      <h2 className="text-xl font-bold">{t("plain.title")}</h2>
      <Notice severity="caution">{t("plain.says")}</Notice>
      {kinds.length === 0 && <p className="mt-2 text-lg text-soft">{t("plan.nothing")}</p>}
      {kinds.map((kind) => (
        <PlainKind key={nameOf(kind)} kind={kind} />
      ))}
      {left_out.map((run) => (
        <div key={run.run} className="mt-2">
          <Notice severity="caution">
            {run.run_name || t("unlisted.a_run")}: {run.says}
          </Notice>
        </div>
      ))}
    </section>
  );
}

function PlainKind({ kind }: { kind: CutKind }) {
  const [choice] = kind.choices;
  if (!choice) return null;
  return (
    <section
      aria-label={t("plan.of_kind", { kind: nameOf(kind) })}
      className="mt-3 border-t border-line pt-2"
    >
      <h3 className="tape text-xl font-bold">
        {nameOf(kind)}{" "}
        <span className="font-normal">
          {things(choice.sticks, "newStick")}, {things(choice.couplings, "coupling")}
        </span>
      </h3>
      <Sources kind={kind} sources={choice.sources} />
    </section>
  );
}
