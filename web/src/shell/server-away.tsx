import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { askWhetherReady, server } from "@/api/reachable";
import { t } from "@/words/shell";

const PAUSE = 3000;

/** Said on every page while the server gives no answer, though there is a network; once it does, all is asked anew. */
export function ServerAway() {
  const answers = useSyncExternalStore(server.subscribe, server.snapshot);
  const queries = useQueryClient();
  useEffect(() => {
    if (answers) return;
    const timer = setInterval(askWhetherReady, PAUSE);
    return () => {
      clearInterval(timer);
      queries.invalidateQueries();
    };
  }, [answers, queries]);
  if (answers || !navigator.onLine) return null;
  return (
    <p role="status" className="border-b border-line bg-tint px-4 py-2 text-[17px] font-medium print:hidden">
      {t("waitingForTheServerNothing")}
    </p>
  );
}
