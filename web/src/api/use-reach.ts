import { useSyncExternalStore } from "react";
import { server } from "./reachable";

function onChange(changed: () => void): () => void {
  const events = ["online", "offline"];
  for (const event of events) addEventListener(event, changed);
  const unsubscribe = server.subscribe(changed);
  return () => {
    for (const event of events) removeEventListener(event, changed);
    unsubscribe();
  };
}

/** Whether the server is in reach, as far as is known. */
export const useReach = (): boolean =>
  useSyncExternalStore(onChange, () => navigator.onLine && server.snapshot() !== "away");
