import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { api, reply } from "@/api/client";
import { useAddRun } from "@/api/job-queries";
import { useJobs, useMe, useShoes } from "@/api/queries";
import type { Job, RunDocument } from "@/api/types";
import { Shell } from "@/shell/shell";
import { newRun, readAs } from "@/trade/new-run";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/jobs";

/** A field note that was shared to the program, or is pasted: read, and begun as a run of a job. */
export function SharedNotePage() {
  const [search] = useSearchParams();
  const [text, setText] = useState(search.get("text") ?? "");
  const jobs = (useJobs().data ?? []).filter((job) => !job.archived_at);
  const { data: note, error } = useRead(text);
  const isRead = text.trim() !== "" && note?.text === text && !note.faults.length;
  return (
    <Shell title={t("shared.title")}>
      <main className="mx-auto flex w-full max-w-3xl flex-col gap-4 px-4 py-6">
        <h1 className="text-3xl font-bold">{t("shared.title")}</h1>
        <label className="flex flex-col gap-1">
          <span className="text-soft">{t("shared.says")}</span>
          <textarea
            value={text}
            onChange={(event) => setText(event.target.value)}
            rows={10}
            spellCheck={false}
            maxLength={20_000}
            className="tape rounded-md border border-line bg-paper p-3 text-lg"
          />
        </label>
        {error && <Notice severity="stop">{error.message}</Notice>}
        {text.trim() !== "" &&
          note?.faults.map((fault) => (
            <Notice key={`${fault.line} ${fault.words}`} severity="stop">
              <strong>{t("shared.line", { line: fault.line, words: fault.words })}</strong> {fault.says}
            </Notice>
          ))}
        <h2 className="text-xl font-bold">{t("shared.job")}</h2>
        <ul className="flex flex-col gap-2">
          {jobs.map((job) => (
            <li key={job.id}>
              <BeginIn job={job} document={isRead ? note.document : null} />
            </li>
          ))}
        </ul>
      </main>
    </Shell>
  );
}

/** The note as it is read; what it does not say is as in a new run. */
function useRead(text: string) {
  const shoes = useShoes();
  const me = useMe().data;
  const before = newRun("", shoes.data ?? [], me ? readAs(me.new_runs) : undefined);
  return useQuery({
    queryKey: ["shared note", text],
    queryFn: () => reply(api.POST("/api/note/read", { body: { text, before: { ...before } } })),
    enabled: text.trim() !== "" && shoes.isSuccess && me !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 10_000,
  });
}

function BeginIn({ job, document }: { job: Job; document: RunDocument | null }) {
  const navigate = useNavigate();
  const adding = useAddRun(job.id);
  async function begin() {
    if (!document) return;
    const run = await adding.mutateAsync(document).catch(() => null);
    if (run) navigate(`/runs/${run.id}/layout`, { replace: true });
  }
  return (
    <>
      <Button
        className="min-h-12 w-full justify-start! text-lg!"
        disabled={!document || adding.isPending}
        onClick={() => void begin()}
      >
        {job.name} {job.place && <span className="text-soft">{job.place}</span>}
      </Button>
      {adding.error && <Notice severity="stop">{adding.error.message}</Notice>}
    </>
  );
}
