import { useSyncExternalStore } from "react";

const KEY = "crelda.measure";
const PHONE = "(max-width: 639px)";
const listeners = new Set<() => void>();

type Measured = "guided" | "list";

/** Keeps on this device whether a phone asks for one thing after the other, or shows all steps. */
export function chooseMeasure(next: Measured): void {
  localStorage.setItem(KEY, next);
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void) {
  const phone = globalThis.matchMedia?.(PHONE);
  listeners.add(listener);
  phone?.addEventListener("change", listener);
  return () => {
    listeners.delete(listener);
    phone?.removeEventListener("change", listener);
  };
}

/** Whether the screen is as small as a phone's. */
export const useIsPhone = (): boolean =>
  useSyncExternalStore(subscribe, () => globalThis.matchMedia?.(PHONE).matches ?? false);

/** As it was chosen on this device; null: never. */
export const useMeasureChoice = (): Measured | null =>
  useSyncExternalStore(subscribe, () => {
    const kept = localStorage.getItem(KEY);
    return kept === "guided" || kept === "list" ? kept : null;
  });
