import { Button } from "@/ui/button";
import { t } from "@/words/layout";

interface Props {
  name: string;
  note: string | undefined;
  className?: string;
}

/** Sends the run as a field note by the system's sheet, where it has one. */
export function ShareNote({ name, note, className = "" }: Props) {
  if (typeof navigator.share !== "function") return null;
  // Whoever thinks better of it has shared nothing, which is no error.
  const share = () => navigator.share({ title: name, text: note ?? "" }).catch(() => undefined);
  return (
    <Button className={className} disabled={!note} onClick={() => void share()}>
      {t("note.share")}
    </Button>
  );
}
