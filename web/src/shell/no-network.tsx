import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { matchPath, useLocation } from "react-router";
import { useOnline } from "@/api/use-reach";
import { timeOf } from "@/ui/moments";
import { t } from "@/words/shell";
import { PlansHere } from "./plans-here";
import { StatusLine } from "./status-line";

/** What can be done in a view without a network. */
const CAN_DO = [
  { at: "/", says: t("here.jobs") },
  { at: "/runs/:runId/layout", says: t("here.layout") },
  { at: "/runs/:runId/bench/*", says: t("here.bench") },
  { at: "/runs/:runId/floor", says: t("here.look") },
  { at: "/runs/:runId/sheet", says: t("here.look") },
  { at: "/jobs/:jobId/stock", says: t("here.stock") },
  { at: "/shoes", says: t("here.shoes") },
  { at: "/log", says: t("here.look") },
  { at: "/devices", says: "" },
];

/** Said on every page while there is no network: from when what is shown is, and what can be done. */
export function NoNetwork() {
  const online = useOnline();
  const queries = useQueryClient();
  const { pathname } = useLocation();
  if (online) return null;
  const since = oldestShown(queries);
  return (
    <StatusLine>
      {t("notice.no_network")}
      {since !== null && t("notice.shown_from", { time: timeOf(since) })}
      <PlansHere /> {CAN_DO.find(({ at }) => matchPath(at, pathname))?.says ?? t("here.nothing")}
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
