import { useWrittenNote } from "@/api/draft-queries";
import type { RunDocument } from "@/api/types";
import { Button } from "@/ui/button";
import { t } from "@/words/layout";

/** Whether the system has a sheet to share by. */
const canShare = (): boolean => typeof navigator.share === "function";

interface Props {
  name: string;
  note: string | undefined;
  className?: string;
}

/** Sends the run as a field note by the system's sheet, where it has one. */
export function ShareNote({ name, note, className = "" }: Props) {
  if (!canShare()) return null;
  // Whoever thinks better of it has shared nothing, which is no error.
  const share = () => navigator.share({ title: name, text: note ?? "" }).catch(() => undefined);
  return (
    <Button className={className} disabled={!note} onClick={() => void share()}>
      {t("note.share")}
    </Button>
  );
}

/** The same of a run whose note is not there yet: it is asked for only where it can be shared. */
export function ShareRun({ document, className }: { document: RunDocument; className: string }) {
  return canShare() ? <ShareWritten document={document} className={className} /> : null;
}

function ShareWritten({ document, className }: { document: RunDocument; className: string }) {
  const note = useWrittenNote(document).data?.text;
  return <ShareNote name={document.name ?? ""} note={note} className={className} />;
}
