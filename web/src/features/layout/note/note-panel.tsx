import { useEffect, useMemo, useRef, useState } from "react";
import { api, reply } from "@/api/client";
import { LatestOnly } from "@/api/latest";
import type { NoteOut, RunDocument } from "@/api/types";
import { rackFindings } from "@/features/layout/rack/rack-findings";
import { usePlanned, useWork } from "@/features/layout/run-context";
import { Button } from "@/ui/button";
import { t } from "@/words/layout";
import { NoteEditor, type NoteMark, type Written } from "./note-editor";
import { ShareNote } from "./share-note";

interface Asked {
  /** A note that was typed, to be read; or nothing, to write the document's. */
  text: string | null;
  document: RunDocument;
  /** How often something had been typed then: what was typed since must not be written over. */
  typed: number;
}

const ask = ({ text, document }: Asked): Promise<NoteOut> =>
  text === null
    ? reply(api.POST("/api/note/write", { body: { document } }))
    : reply(api.POST("/api/note/read", { body: { text, before: { ...document } } }));

/** The run as one would write it on a box lid; it follows the sentences, and they follow it. */
export function NotePanel() {
  const { draft, edit, mayWrite, send } = useWork();
  const { plan, rack } = usePlanned();
  const [note, setNote] = useState<NoteOut | null>(null);
  const [written, setWritten] = useState<Written | null>(null);
  const [error, setError] = useState("");
  const [copied, setCopied] = useState(false);
  // The document that the text in the editor stands for: one that came from it must not be written over it.
  const shown = useRef<RunDocument | null>(null);
  const typed = useRef(0);
  const apply = useRef(edit);
  apply.current = edit;

  const line = useMemo(
    () =>
      new LatestOnly<Asked, NoteOut>(ask, (asked, { got, error }) => {
        setError(error instanceof Error ? error.message : "");
        if (!got) return;
        if (asked.text === null) {
          if (asked.typed !== typed.current) return;
          setNote(got);
          setWritten({ text: got.text, typed: asked.typed });
          return;
        }
        setNote((last) => ({ ...got, text: last?.text ?? got.text }));
        shown.current = got.document;
        apply.current(got.document, "note");
      }),
    [],
  );
  useEffect(() => () => line.stop(), [line]);
  useEffect(() => {
    if (shown.current === draft.document) return;
    shown.current = draft.document;
    line.want({ text: null, document: draft.document, typed: typed.current });
  }, [draft.document, line]);

  async function copy() {
    await navigator.clipboard.writeText(note?.text ?? "");
    setCopied(true);
  }

  const marks: NoteMark[] = [
    ...(note?.faults ?? []).map((fault) => ({ ...fault, severity: "stop" as const })),
    ...[...(plan?.findings ?? []), ...rackFindings(rack)].flatMap((finding) => {
      const at = lineOf(note?.lines ?? {}, finding.place);
      return at ? [{ line: at, words: "", says: finding.says, severity: finding.severity }] : [];
    }),
  ];
  return (
    <div className="flex h-full flex-col">
      {written && (
        <NoteEditor
          written={written}
          typed={typed}
          marks={marks}
          readOnly={!mayWrite}
          onChange={(text) => {
            setCopied(false);
            typed.current += 1;
            setNote((last) => last && { ...last, text });
            line.want({ text, document: draft.document, typed: typed.current });
          }}
          onUndo={() => send({ type: "undo" })}
          onRedo={() => send({ type: "redo" })}
        />
      )}
      <div className="flex flex-col gap-1.5 border-t border-line px-3 py-2 text-[15px]" aria-live="polite">
        {error && <p className="text-stop">{t("note.refused", { error })}</p>}
        {note?.faults.map((fault) => (
          <p key={`${fault.line} ${fault.words}`}>
            <strong>{t("note.line", { line: fault.line, words: fault.words })}</strong> {fault.says}
          </p>
        ))}
        <p className="text-soft">{t("note.intro")}</p>
        <div className="flex gap-2">
          <Button onClick={copy}>{copied ? t("note.copied") : t("note.copy")}</Button>
          <ShareNote name={draft.document.name ?? ""} note={note?.text} />
        </div>
      </div>
    </div>
  );
}

/** The line of a dotted place, or of the nearest part that holds it. */
function lineOf(lines: Record<string, number>, place: string): number | undefined {
  for (let part = place; part; part = part.includes(".") ? part.slice(0, part.lastIndexOf(".")) : "")
    if (lines[part]) return lines[part];
  return undefined;
}
