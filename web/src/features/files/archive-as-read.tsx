import { useState } from "react";
import { Link } from "react-router";
import { useUnpack } from "@/api/imports";
import { useJobs, useMe } from "@/api/queries";
import type { Archive, ImportOut } from "@/api/types";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { t } from "@/words/files";

interface Props {
  file: ImportOut;
  archive: Archive;
}

/** What a job, or a crew’s data, as one file says, before it becomes part of the crew; and what became of it. */
export function ArchiveAsRead({ file, archive }: Props) {
  return (
    <section aria-label={archive.name} className="flex flex-col gap-4">
      <div className="rounded-lg border border-line bg-paper p-4">
        <h2 className="text-xl font-bold">
          {archive.of === "job"
            ? t("archive.job", { name: archive.name })
            : t("archive.crew", { name: archive.name })}
        </h2>
        <p className="text-soft">
          {t("archive.from", { crew: archive.crew, at: new Date(archive.made_at).toLocaleString() })}
        </p>
        <Counts counts={archive.counts} />
        <Meets archive={archive} />
      </div>
      {file.state === "done" && <TakeArchive file={file} archive={archive} />}
      {file.state === "taken" && <Became file={file} archive={archive} />}
    </section>
  );
}

/** The tables that people ask for, in their order. */
const COUNTED = [
  ["jobs", t("count.jobs")],
  ["runs", t("count.runs")],
  ["revisions", t("count.saves")],
  ["boxes", t("count.boxes")],
  ["photos", t("count.photos")],
  ["sticks", t("count.sticks")],
  ["bends", t("count.bends")],
  ["bars", t("count.bars")],
  ["cuts", t("count.cuts")],
  ["shoes", t("count.shoes")],
  ["calibrations", t("count.calibrations")],
  ["scraps", t("count.scraps")],
] as const;

function Counts({ counts }: { counts: Record<string, number> }) {
  return (
    <dl className="mt-3 grid grid-cols-2 gap-x-6 gap-y-1 sm:grid-cols-3 lg:grid-cols-4">
      {COUNTED.filter(([table]) => counts[table]).map(([table, says]) => (
        <div key={table} className="flex justify-between gap-3 border-b border-line/60 py-1">
          <dt className="text-soft">{says}</dt>
          <dd className="tape font-semibold">{counts[table]}</dd>
        </div>
      ))}
    </dl>
  );
}

/** What of it meets what the crew has. */
function Meets({ archive }: { archive: Archive }) {
  const shoes = archive.shoes.filter((shoe) => shoe.here || shoe.becomes !== shoe.name);
  const tags = Object.entries(archive.tags);
  return (
    <ul className="mt-3 flex flex-col gap-1">
      {shoes.map((shoe) => (
        <li key={shoe.name}>
          {shoe.here
            ? t("archive.shoe_here", { name: shoe.name })
            : t("archive.shoe_renamed", { name: shoe.name, becomes: shoe.becomes })}
        </li>
      ))}
      {tags.length > 0 && (
        <li>{t("archive.tags", { tags: tags.map(([tag, becomes]) => `${tag} → ${becomes}`).join(", ") })}</li>
      )}
      {archive.scraps_here > 0 && <li>{t("archive.scraps_here", { count: archive.scraps_here })}</li>}
      {archive.people_away.length > 0 && (
        <li>{t("archive.people_away", { people: archive.people_away.join(", ") })}</li>
      )}
      {archive.of === "crew" && (
        <li>{archive.with_settings ? t("archive.with_settings") : t("archive.without_settings")}</li>
      )}
    </ul>
  );
}

function TakeArchive({ file, archive }: Props) {
  const jobs = useJobs().data ?? [];
  const isThere = jobs.some((job) => job.name === archive.name);
  const [named, setNamed] = useState<string | null>(null);
  const name = named ?? (isThere ? t("archive.second", { name: archive.name }).slice(0, 80) : archive.name);
  const unpack = useUnpack(file.id);
  const leads = useMe().data?.role === "lead";
  const isBarred = archive.of === "crew" && !leads;
  return (
    <div className="flex flex-wrap items-end gap-4">
      {archive.of === "job" && (
        <Field
          label={t("archive.called")}
          className="w-full max-w-96"
          maxLength={80}
          value={name}
          onChange={(event) => setNamed(event.target.value)}
        />
      )}
      <Button
        look="main"
        className="min-h-12 text-lg!"
        disabled={unpack.isPending || isBarred || !name.trim()}
        onClick={() => unpack.mutate(archive.of === "job" ? name.trim() : "")}
      >
        {archive.of === "job" ? t("archive.take_job") : t("archive.take_crew")}
      </Button>
      {isBarred && <Notice severity="note">{t("archive.lead_only")}</Notice>}
      {unpack.error && <Notice severity="stop">{unpack.error.message}</Notice>}
    </div>
  );
}

function Became({ file, archive }: Props) {
  const job = useJobs().data?.find((one) => one.id === file.job_id);
  return (
    <p role="status" className="text-lg">
      {archive.of === "job"
        ? t("archive.job_is_here", { name: job?.name ?? archive.name })
        : t("archive.data_is_here")}{" "}
      <Link to="/" className="underline">
        {t("take.to_jobs")}
      </Link>
    </p>
  );
}
