import { useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { isBeingRead, useImport, useSendFile } from "@/api/imports";
import { handedOver } from "@/shell/dropped-file";
import { Shell } from "@/shell/shell";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/files";
import { ArchiveAsRead } from "./archive-as-read";
import { ChooseFile } from "./choose-file";
import { HowMeant } from "./how-meant";
import { WhatWasRead } from "./what-was-read";

/** A file of another program, or of ours: sent, read, looked at, and taken into a job. */
export function ImportPage() {
  const [search, setSearch] = useSearchParams();
  const id = Number(search.get("file"));
  const open = (file: number | null) =>
    setSearch((before) => {
      if (file) before.set("file", String(file));
      else before.delete("file");
      return before;
    });
  return (
    <Shell title={t("import.title")}>
      <main className="mx-auto w-full max-w-[70rem] px-4 py-5">
        <h1 className="text-2xl font-bold">{t("import.title")}</h1>
        <p className="mt-1 text-soft">{t("import.says")}</p>
        {id ? <Read id={id} onOther={() => open(null)} /> : <Choose onSent={open} />}
      </main>
    </Shell>
  );
}

function Choose({ onSent }: { onSent: (file: number) => void }) {
  const [sent, setSent] = useState<{ name: string; done: number } | null>(null);
  const sending = useSendFile();
  const send = (file: File) => {
    setSent({ name: file.name, done: 0 });
    sending.mutate(
      { file, onPart: (done) => setSent({ name: file.name, done }) },
      { onSuccess: (told) => onSent(told.id) },
    );
  };
  const first = useRef(send);
  useEffect(() => {
    const file = handedOver();
    if (file) first.current(file);
  }, []);
  return (
    <>
      {sending.isPending && sent && (
        <p role="status" className="mt-4">
          {t("import.sending", { name: sent.name, percent: Math.floor(100 * sent.done) })}
        </p>
      )}
      {sending.error && <Notice severity="stop">{sending.error.message}</Notice>}
      <ChooseFile onFile={send} isHeld={sending.isPending} />
    </>
  );
}

function Read({ id, onOther }: { id: number; onOther: () => void }) {
  const { data: file, error } = useImport(id);
  return (
    <div className="mt-4 flex flex-col gap-4">
      <div className="flex flex-wrap items-center gap-3">
        {file && <strong className="tape text-lg break-all">{file.name}</strong>}
        <Button onClick={onOther} className="min-h-11">
          {t("import.other")}
        </Button>
      </div>
      {error && <Notice severity="stop">{error.message}</Notice>}
      {file && isBeingRead(file) && (
        <p role="status">
          {file.archive ? t("archive.taking", { percent: Math.floor(100 * file.done) }) : t("import.reading")}
        </p>
      )}
      {file?.state === "failed" && <Notice severity="stop">{file.says}</Notice>}
      {file && !file.archive && (file.state === "failed" || file.state === "done") && (
        <HowMeant key={JSON.stringify(file.meant)} file={file} />
      )}
      {file?.archive && <ArchiveAsRead file={file} archive={file.archive} />}
      {file && !file.archive && (file.state === "done" || file.state === "taken") && (
        <WhatWasRead file={file} />
      )}
    </div>
  );
}
