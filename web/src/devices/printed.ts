import { useSyncExternalStore } from "react";
import { Observed } from "@/api/observed";
import { shownFor } from "@/api/owner";

const MOST = 200;
// Told when something was printed; what is there depends on who looks.
const printing = new Observed(null);
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
  printing.change(null);
}

/** What came out of the simulated printer on this machine, newest first. */
export const usePrinted = (): string[][] => useSyncExternalStore(printing.subscribe, all);
