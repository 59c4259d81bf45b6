import { useEffect, useRef } from "react";
import { addressOfFile, isBeingMade, useFile } from "@/api/files";
import type { ExportOut } from "@/api/types";
import { buttonLook } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/files";

export interface Asked {
  file: ExportOut;
  what: string;
}

/** A file that was asked for: how it goes; it is saved once it is made, and again at a touch. */
export function MadeFile({ asked }: { asked: Asked }) {
  const file = useFile(asked.file).data;
  const link = useRef<HTMLAnchorElement>(null);
  const isDone = file.state === "done";
  useEffect(() => {
    if (isDone) link.current?.click();
  }, [isDone]);
  const what = asked.what;
  if (file.state === "failed")
    return <Notice severity="stop">{t("made.failed", { what, why: file.says })}</Notice>;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <p role="status">{said(file, what)}</p>
      {isDone && (
        <a
          ref={link}
          href={addressOfFile(file.id)}
          download={file.file_name}
          className={buttonLook("plain", "min-h-11")}
        >
          {t("made.save", { file: file.file_name })}
        </a>
      )}
    </div>
  );
}

function said(file: ExportOut, what: string): string {
  if (!isBeingMade(file)) return t("made.done", { what });
  if (file.state === "waiting") return t("made.waiting", { what });
  return file.done > 0
    ? t("made.percent", { what, percent: Math.floor(100 * file.done) })
    : t("made.running", { what });
}
