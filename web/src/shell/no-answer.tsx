import { useEffect } from "react";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/shell";
import { Wordmark } from "./wordmark";

const PAUSE = 3000;

/** The program is here, but its server or database gives no answer: what is going on, and that it tries again. */
export function NoAnswer({ error, onAgain }: { error: Error | null; onAgain: () => void }) {
  useEffect(() => {
    const timer = setInterval(onAgain, PAUSE);
    return () => clearInterval(timer);
  }, [onAgain]);
  return (
    <main className="flex min-h-dvh items-center justify-center p-6">
      <div className="flex w-[min(25rem,100%)] flex-col gap-5 text-lg">
        <Wordmark large />
        <Notice severity="caution">{error?.message ?? t("server.no_reply")}</Notice>
        <p className="text-soft">{t("starting.tried_again")}</p>
        <Button className="min-h-12 self-start" onClick={onAgain}>
          {t("starting.try_now")}
        </Button>
      </div>
    </main>
  );
}
