import { useSyncExternalStore } from "react";

export type PadShown = "device" | "always" | "never";
export type Hand = "right" | "left";

interface PadChoice {
  shown: PadShown;
  hand: Hand;
  /** How long the tape's own body is, for what is measured with its back against a wall. */
  body: string;
}

const KEY = "crelda.pad";
const FIRST: PadChoice = { shown: "device", hand: "right", body: "3 1/2" };
const listeners = new Set<() => void>();
let chosen: PadChoice | null = null;

function choice(): PadChoice {
  if (chosen) return chosen;
  try {
    chosen = { ...FIRST, ...(JSON.parse(localStorage.getItem(KEY) ?? "{}") as Partial<PadChoice>) };
  } catch {
    chosen = FIRST;
  }
  return chosen;
}

/** Keeps on this device when the pad is shown, and for which hand. */
export function choosePad(next: Partial<PadChoice>): void {
  chosen = { ...choice(), ...next };
  localStorage.setItem(KEY, JSON.stringify(chosen));
  for (const listener of listeners) listener();
}

export const usePadChoice = (): PadChoice =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, choice);

const isTouched = (): boolean => globalThis.matchMedia?.("(pointer: coarse)").matches ?? false;

/** Whether figures are typed with the pad: on a screen that is touched, or as it was chosen. */
export function usePadIsUsed(): boolean {
  const { shown } = usePadChoice();
  return shown === "always" || (shown === "device" && isTouched());
}
