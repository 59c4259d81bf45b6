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
        <p className="mt-8 text-[15px] text-soft">{t("door.cautions")}</p>
        <p className="mt-2 text-[15px] text-soft">
          {t("door.version", { version: __VERSION__ })}{" "}
          <a href="/licenses.txt" className="inline-block py-2.5 underline">
            {t("door.made_with")}
          </a>
          {", "}
          <a href="/license-of-the-font.txt" className="inline-block py-2.5 underline">
            {t("door.font")}
          </a>
        </p>
      </div>
    </main>
  );
}
