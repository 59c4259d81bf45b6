import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useSyncExternalStore } from "react";
import { timeOf } from "@/ui/moments";
import { t } from "@/words/shell";
import { PlansHere } from "./plans-here";
import { StatusLine } from "./status-line";

const isOnline = () => navigator.onLine;

function onChange(changed: () => void): () => void {
  const events = ["online", "offline"];
  for (const event of events) addEventListener(event, changed);
  return () => {
    for (const event of events) removeEventListener(event, changed);
  };
}

/** Said on every page while there is no network: from when what is shown is. */
export function NoNetwork() {
  const online = useSyncExternalStore(onChange, isOnline);
  const queries = useQueryClient();
  if (online) return null;
  const since = oldestShown(queries);
  return (
    <StatusLine>
      {t("notice.no_network")}
      {since !== null && t("notice.shown_from", { time: timeOf(since) })}
      <PlansHere />
    </StatusLine>
  );
}

/** When the oldest of what this page shows of the crew's things was answered; null where it shows none. */
function oldestShown(queries: QueryClient): number | null {
  const times = queries
    .getQueryCache()
    .findAll({ type: "active" })
    .filter((one) => one.queryKey[0] !== "me" && one.state.data !== undefined)
    .map((one) => (one.state.data as { keptAt?: number } | null)?.keptAt ?? one.state.dataUpdatedAt);
  return times.length ? Math.min(...times) : null;
}
