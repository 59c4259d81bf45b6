import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { useNavigate } from "react-router";
import { askAnew } from "@/api/after-writes";
import { sendBegun } from "@/api/begun-here";
import { isBegunHere } from "@/api/own-numbers";
import { keys } from "@/api/queries";
import { useReach } from "@/api/use-reach";

/** A run begun here goes to the server as soon as that is in reach, and is worked on there from then on. */
export function useSentFromHere(runId: number, view: "layout" | "bench", isSettled: boolean) {
  const navigate = useNavigate();
  const reach = useReach();
  const queries = useQueryClient();
  const isDue = isBegunHere(runId) && reach && isSettled;
  useEffect(() => {
    if (!isDue) return;
    let left = false;
    sendBegun(runId)
      .then((id) => {
        void askAnew(queries, [keys.jobs]);
        if (!left) navigate(`/runs/${id}/${view}`, { replace: true });
      })
      .catch(() => undefined);
    return () => {
      left = true;
    };
  }, [isDue, runId, view, navigate, queries]);
}
