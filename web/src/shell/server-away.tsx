import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { askWhetherReady, server } from "@/api/reachable";
import { t } from "@/words/shell";
import { PlansHere } from "./plans-here";
import { StatusLine } from "./status-line";

const PAUSE = 3000;

/** Said on every page while the server cannot do its work, though there is a network; once it can, all is asked anew. */
export function ServerAway() {
  const state = useSyncExternalStore(server.subscribe, server.snapshot);
  const queries = useQueryClient();
  useEffect(() => {
    if (state !== "away") return;
    const timer = setInterval(askWhetherReady, PAUSE);
    return () => {
      clearInterval(timer);
      queries.invalidateQueries();
    };
  }, [state, queries]);
  if (state === "answers" || !navigator.onLine) return null;
  return (
    <StatusLine>
      {state === "away" ? t("notice.waiting") : t("notice.disk_full")}
      {state === "away" && <PlansHere />}
    </StatusLine>
  );
}
