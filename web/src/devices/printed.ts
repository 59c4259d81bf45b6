import { useSyncExternalStore } from "react";
import { shownFor } from "@/api/owner";

const MOST = 200;
const listeners = new Set<() => void>();
let known: { key: string; labels: string[][] } | null = null;

/** What one person printed is not another's to see, on a machine that they share. */
const keyNow = () => `crelda.printed.${shownFor()}`;

function all(): string[][] {
  const key = keyNow();
  if (known?.key !== key) known = { key, labels: keptAt(key) };
  return known.labels;
}

function keptAt(key: string): string[][] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? "[]");
    return Array.isArray(kept) ? kept : [];
  } catch {
    return [];
  }
}

/** Keeps a label that came out of the simulated printer; the oldest fall out of its memory. */
export function keepPrinted(lines: string[]): void {
  const labels = [lines, ...all()].slice(0, MOST);
  known = { key: keyNow(), labels };
  localStorage.setItem(known.key, JSON.stringify(labels));
  for (const listener of listeners) listener();
}

/** What came out of the simulated printer on this machine, newest first. */
export const usePrinted = (): string[][] =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, all);
