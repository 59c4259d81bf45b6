import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { begunRuns } from "@/api/begun-here";
import { ApiError, api, reply } from "@/api/client";
import { persister } from "@/api/kept";
import { waiting } from "@/api/later";
import { tellOtherTabs } from "@/api/owner";
import { useOutboxSnapshot } from "@/outbox/outbox-context";
import { Ask } from "@/ui/confirm";
import { t } from "@/words/shell";

/** What of this person's is only on this device, in words; or nothing. */
const unsent = (acts: number, begun: number): string =>
  [acts && t("sign_out.kept", { kept: acts }), begun && t("sign_out.begun", { count: begun })]
    .filter(Boolean)
    .join(" ");

/** Signs out: at once, or after a word about what is not sent yet. */
export function SigningOut({ onStay }: { onStay: () => void }) {
  const { kept } = useOutboxSnapshot();
  const queries = useQueryClient();
  const [says, setSays] = useState(
    unsent(kept.length, begunRuns.snapshot().length + waiting.snapshot().length),
  );
  const signOut = useCallback(async () => {
    try {
      await reply(api.DELETE("/api/session"));
    } catch (error) {
      if (!(error instanceof ApiError && error.status === 401)) {
        setSays(t("sign_out.no_reply"));
        return;
      }
    }
    queries.clear();
    await persister.removeClient();
    tellOtherTabs("");
    window.location.assign("/");
  }, [queries]);
  const asked = useRef(false);
  useEffect(() => {
    if (says || asked.current) return;
    asked.current = true;
    void signOut();
  }, [says, signOut]);
  if (!says) return null;
  return (
    <Ask
      title={t("sign_out.ask")}
      says={says}
      act={t("sign_out")}
      keep={t("sign_out.stay")}
      onAct={signOut}
      onKeep={onStay}
    />
  );
}
