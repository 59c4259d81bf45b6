import { useSearchParams } from "react-router";
import { buttonLook } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/people";

interface Props {
  says: string;
  /** What is to come of it, as the server is asked. */
  asked?: Record<string, string>;
  className?: string;
}

/** On to the company's own sign-in: another page, which sends the browser back. */
export function ByProvider({ says, asked = {}, className = "min-h-12 text-lg" }: Props) {
  const search = new URLSearchParams(asked).toString();
  return (
    <a href={`/api/session/provider${search && `?${search}`}`} className={buttonLook("plain", className)}>
      {says}
    </a>
  );
}

const TOLD: Record<string, (name: string) => string> = {
  "no-answer": (name) => t("provider.no_answer", { name }),
  "not-vouched": (name) => t("provider.not_vouched", { name }),
  unknown: () => t("provider.unknown"),
  anothers: () => t("provider.anothers"),
  "has-one": () => t("provider.connected_already"),
  "name-taken": () => t("provider.name_taken"),
};

/** What the way to the company's sign-in came to, as the address says. */
export function useProviderSays(): string {
  return useSearchParams()[0].get("provider") ?? "";
}

/** Why nobody was let in by it; nothing where somebody was. */
export function ToldByProvider({ name }: { name: string }) {
  const told = TOLD[useProviderSays()]?.(name);
  return told ? <Notice severity="stop">{told}</Notice> : null;
}
