import { useCallback, useMemo, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { useMe } from "@/api/queries";
import { useSpace } from "@/api/space";
import type { SpaceOut } from "@/api/types";
import { type Chosen, jobScene, pointsOfChosen } from "@/scene/job-scene";
import { SceneView } from "@/scene/scene-view";
import { SIDES, type Side } from "@/scene/sides";
import { jobTabs } from "@/shell/pages";
import { Shell } from "@/shell/shell";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { t } from "@/words/space";
import { Boxes } from "./boxes";
import { Clashes } from "./clashes";
import { Datum } from "./datum";

const CONTROL = [{ x: 0, y: 0, width: 400, height: 58 }];

/** A job as a whole: its boxes placed, every run in one space, what comes too near and what does not close. */
export function SpacePage() {
  const jobId = Number(useParams().jobId);
  const space = useSpace(jobId);
  const job = space.data;
  return (
    <Shell
      title={t("page.title", { job: job?.name ?? "" })}
      trail={<strong className="text-ink">{job?.name}</strong>}
      tabs={jobTabs(jobId)}
    >
      {space.error && !job && (
        <main className="p-8">
          <Notice severity="stop">{space.error.message}</Notice>
        </main>
      )}
      {job && <Whole job={job} />}
    </Shell>
  );
}

function Whole({ job }: { job: SpaceOut }) {
  const me = useMe().data;
  const mayWrite = me?.role !== "viewer";
  const [side, setSide] = useState<Side>("turned");
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const touched = useRef<Chosen | null>(null);
  const choose = useCallback((next: Chosen | null) => setChosen(next), []);
  const touch = useCallback((next: Chosen) => {
    touched.current = next;
    setChosen(next);
  }, []);
  const { space } = job;
  const scene = useMemo(() => jobScene(space, chosen, touch), [space, chosen, touch]);
  // What was touched in the picture is in sight already.
  const focus = useMemo(
    () => (chosen === touched.current ? null : pointsOfChosen(space, chosen)),
    [space, chosen],
  );
  const standing = space.runs.filter((run) => run.stands);
  return (
    <main className="flex flex-1 flex-col lg:h-[calc(100dvh-3.5rem)] lg:flex-none lg:flex-row">
      <div className="flex shrink-0 flex-col gap-3 overflow-y-auto border-line bg-paper py-3 max-lg:order-2 lg:w-[26rem] lg:border-r">
        <Verdict job={job} />
        <Datum jobId={job.id} datum={job.datum} mayWrite={mayWrite} />
        <Clashes job={job} mayWrite={mayWrite} chosen={chosen} choose={choose} />
        <Closings job={job} />
        <section aria-label={t("boxes.title")}>
          <h2 className="px-4 text-lg font-bold">{t("boxes.title")}</h2>
          {me && <Boxes job={job} tape={me.new_runs} mayWrite={mayWrite} chosen={chosen} choose={choose} />}
        </section>
        <RunsAside job={job} />
      </div>
      <section
        aria-label={t("page.whole")}
        className="relative min-h-[52dvh] flex-1 overflow-hidden bg-sheet max-lg:order-1 max-lg:flex-none max-lg:border-b max-lg:border-line"
      >
        {standing.length > 0 ? (
          <SceneView
            scene={scene}
            side={side}
            name={job.name}
            description={inWords(job)}
            focus={focus}
            inTheWay={CONTROL}
            onNothing={() => setChosen(null)}
          />
        ) : (
          <p className="p-4 pt-20 text-lg">{t("page.nothing_stands")}</p>
        )}
        <div className="absolute top-3 left-3">
          <Segments label={t("view.title")} value={side} choices={SIDES} onChoose={setSide} />
        </div>
      </section>
    </main>
  );
}

/** What can be said of the whole: how many runs stand, and whether they keep clear. */
function Verdict({ job }: { job: SpaceOut }) {
  const { space } = job;
  const standing = space.runs.filter((run) => run.stands).length;
  const near = space.clashes.filter((clash) => clash.kind !== "knockout");
  return (
    <div className="flex flex-col gap-1 px-4">
      <h1 className="text-2xl font-bold">{t("page.whole")}</h1>
      <p className="text-[17px]">
        {t("verdict.stand", { standing, runs: space.runs.length })}{" "}
        {near.length
          ? t("verdict.clashes", { count: near.length })
          : space.clear
            ? t("verdict.clear", { asked: space.asked.reads })
            : standing > 1 && t("verdict.clear_so_far", { asked: space.asked.reads })}
      </p>
    </div>
  );
}

/** Runs whose boxes are both placed, and that do not end where they should. */
function Closings({ job }: { job: SpaceOut }) {
  const open = job.space.closings.filter((one) => !one.closes);
  if (!open.length) return null;
  return (
    <section aria-label={t("closings.title")} className="flex flex-col gap-2 px-4">
      <h2 className="text-lg font-bold">{t("closings.title")}</h2>
      {open.map((one) => (
        <Notice key={one.run} severity="caution">
          {one.says}{" "}
          <Link to={`/runs/${one.run}/layout`} className="font-semibold underline">
            {t("closings.open")}
          </Link>
        </Notice>
      ))}
    </section>
  );
}

/** Runs that stand nowhere yet, and why. */
function RunsAside({ job }: { job: SpaceOut }) {
  const aside = job.space.runs.filter((run) => !run.stands);
  if (!aside.length) return null;
  return (
    <section aria-label={t("aside.title")} className="px-4">
      <h2 className="text-lg font-bold">{t("aside.title")}</h2>
      <ul>
        {aside.map((run) => (
          <li key={run.key} className="py-1.5">
            <Link to={`/runs/${run.key}/layout`} className="font-semibold underline">
              {run.name || t("run.unnamed")}
            </Link>
            <span className="block text-[15px] text-soft">{run.why_not}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What the picture shows, for those who hear it. */
const inWords = ({ space }: SpaceOut): string =>
  [
    ...space.runs.filter((run) => run.stands).map((run) => run.name),
    ...space.clashes.map((clash) => clash.says),
  ].join("; ");
