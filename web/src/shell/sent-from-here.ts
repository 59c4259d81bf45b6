import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { askAnew } from "@/api/after-writes";
import { sendBegun } from "@/api/begun-here";
import { isBegunHere } from "@/api/own-numbers";
import { keys } from "@/api/queries";
import { useReach } from "@/api/use-reach";

/**
 * A run begun here goes to the server as soon as that is in reach, and is worked on there from then on: `onSent` goes to
 * the number that it has there.
 */
export function useSentFromHere(runId: number, isSettled: boolean, onSent: (id: number) => void) {
  const reach = useReach();
  const queries = useQueryClient();
  const opened = useRef(onSent);
  opened.current = onSent;
  const isDue = isBegunHere(runId) && reach && isSettled;
  useEffect(() => {
    if (!isDue) return;
    let left = false;
    sendBegun(runId)
      .then((id) => {
        void askAnew(queries, [keys.jobs]);
        if (!left) opened.current(id);
      })
      .catch(() => undefined);
    return () => {
      left = true;
    };
  }, [isDue, runId, queries]);
}
