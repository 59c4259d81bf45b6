import { useState } from "react";
import { useAskForPasswordLink } from "@/api/people";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";

/** What to do about a forgotten password: the lead's link, or one by mail where the server sends mail. */
export function Forgotten({ knownAs, mail }: { knownAs: string; mail: boolean }) {
  const [open, setOpen] = useState(false);
  const ask = useAskForPasswordLink();
  if (!open)
    return (
      <Button look="quiet" className="mt-3 min-h-11 self-start" onClick={() => setOpen(true)}>
        {t("forgotten.title")}
      </Button>
    );
  return (
    <div className="mt-4 flex flex-col items-start gap-3">
      <p>{t("forgotten.lead")}</p>
      {mail && !ask.isSuccess && (
        <>
          <p>{t("forgotten.mail")}</p>
          <Button
            className="min-h-11"
            disabled={!knownAs.trim() || ask.isPending}
            onClick={() => ask.mutate(knownAs)}
          >
            {t("forgotten.send")}
          </Button>
        </>
      )}
      {ask.error && <Notice severity="stop">{ask.error.message}</Notice>}
      {ask.isSuccess && <p role="status">{t("forgotten.sent")}</p>}
    </div>
  );
}
