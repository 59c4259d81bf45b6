import type { ReactNode } from "react";
import { Wordmark } from "@/shell/wordmark";
import { t } from "@/words/people";

/** The frame of the pages for people who are not signed in yet. */
export function FrontDoor({ children }: { children: ReactNode }) {
  return (
    <main className="flex min-h-dvh items-center justify-center p-6">
      <div className="w-[min(25rem,100%)]">
        <Wordmark large />
        <div className="mt-3">{children}</div>
        <p className="mt-8 text-[15px] text-soft">{t("creldaLaysOutPipeYour")}</p>
      </div>
    </main>
  );
}
