import { useSyncExternalStore } from "react";

const KEY = "crelda.printed";
const MOST = 200;
const listeners = new Set<() => void>();
let labels: string[][] | null = null;

function all(): string[][] {
  if (labels) return labels;
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? "[]");
    labels = Array.isArray(kept) ? kept : [];
  } catch {
    labels = [];
  }
  return labels;
}

/** Keeps a label that came out of the simulated printer; the oldest fall out of its memory. */
export function keepPrinted(lines: string[]): void {
  labels = [lines, ...all()].slice(0, MOST);
  localStorage.setItem(KEY, JSON.stringify(labels));
  for (const listener of listeners) listener();
}

/** What came out of the simulated printer on this machine, newest first. */
export const usePrinted = (): string[][] =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, all);
