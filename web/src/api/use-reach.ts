import { useSyncExternalStore } from "react";
import { server } from "./reachable";

const EVENTS = ["online", "offline"];

function onNetwork(changed: () => void): () => void {
  for (const event of EVENTS) addEventListener(event, changed);
  return () => {
    for (const event of EVENTS) removeEventListener(event, changed);
  };
}

function onEither(changed: () => void): () => void {
  const unsubscribe = [onNetwork(changed), server.subscribe(changed)];
  return () => {
    for (const one of unsubscribe) one();
  };
}

/** Whether there is a network, as far as the browser knows. */
export const useOnline = (): boolean => useSyncExternalStore(onNetwork, () => navigator.onLine);

/** Whether the server is in reach, as far as is known. */
export const useReach = (): boolean =>
  useSyncExternalStore(onEither, () => navigator.onLine && server.snapshot() !== "away");
