import { useSyncExternalStore } from "react";
import { Observed } from "@/api/observed";

const KEY = "crelda.measure";
const PHONE = "(max-width: 639px)";

type Measured = "guided" | "list";

function kept(): Measured | null {
  const found = localStorage.getItem(KEY);
  return found === "guided" || found === "list" ? found : null;
}

const choice = new Observed(kept());

/** Keeps on this device whether a phone asks for one thing after the other, or shows all steps. */
export function chooseMeasure(next: Measured): void {
  localStorage.setItem(KEY, next);
  choice.change(next);
}

function whenResized(listener: () => void) {
  const phone = globalThis.matchMedia?.(PHONE);
  phone?.addEventListener("change", listener);
  return () => phone?.removeEventListener("change", listener);
}

/** Whether the screen is as small as a phone's. */
export const useIsPhone = (): boolean =>
  useSyncExternalStore(whenResized, () => globalThis.matchMedia?.(PHONE).matches ?? false);

/** As it was chosen on this device; null: never. */
export const useMeasureChoice = (): Measured | null =>
  useSyncExternalStore(choice.subscribe, choice.snapshot);
