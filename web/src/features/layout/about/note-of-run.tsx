import { useId, useState } from "react";
import { useWriteRunNote } from "@/api/about";
import { ApiError } from "@/api/client";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/layout";

const LONGEST = 2000;

interface Props {
  runId: number;
  /** The note as the server keeps it. */
  kept: string;
  mayWrite: boolean;
}

/** A note on a run, such as where the ladder is; one that somebody changed meanwhile is not written over unseen. */
export function NoteOfRun({ runId, kept, mayWrite }: Props) {
  const write = useWriteRunNote(runId);
  const id = useId();
  const [text, setText] = useState(kept);
  const [was, setWas] = useState(kept);
  const refused = write.error instanceof ApiError && write.error.status === 409;
  const keep = (over: string) =>
    write.mutate({ note: text.trim(), was: over }, { onSuccess: (about) => setWas(about.note) });
  return (
    <section>
      <label htmlFor={id} className="block text-lg font-bold">
        {t("about.note")}
      </label>
      <textarea
        id={id}
        rows={4}
        maxLength={LONGEST}
        readOnly={!mayWrite}
        className="mt-1 w-full rounded-md border border-line bg-paper p-2"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {write.error && <Notice severity="stop">{write.error.message}</Notice>}
      {refused && (
        <blockquote className="my-1 border-l-4 border-line pl-2 whitespace-pre-wrap">{kept}</blockquote>
      )}
      {mayWrite && text.trim() !== was && (
        <Button look="main" disabled={write.isPending} onClick={() => keep(refused ? kept : was)}>
          {refused ? t("about.keep_mine") : t("about.keep_note")}
        </Button>
      )}
    </section>
  );
}
