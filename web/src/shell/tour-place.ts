import { useSyncExternalStore } from "react";

const KEY = "crelda.tour";
const listeners = new Set<() => void>();

/** Where the tour stands on this device, so that it goes on after a page was loaded anew; null: none is under way. */
function place(): number | null {
  const kept = localStorage.getItem(KEY);
  return kept !== null && /^\d{1,2}$/.test(kept) ? Number(kept) : null;
}

function put(at: number | null): void {
  if (at === null) localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, String(at));
  for (const heard of listeners) heard();
}

export const startTour = (): void => put(0);
export const leaveTour = (): void => put(null);
export const goOn = (from: number): void => put(from + 1);

export const useTour = (): number | null =>
  useSyncExternalStore((heard) => {
    listeners.add(heard);
    return () => listeners.delete(heard);
  }, place);
