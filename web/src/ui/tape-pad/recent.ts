const KEY = "crelda.readings";
const MOST = 6;

/** The readings that were typed last on this device, the newest first. */
export function recentReadings(): string[] {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(KEY) ?? "[]");
    return Array.isArray(kept) ? kept.filter((one) => typeof one === "string") : [];
  } catch {
    return [];
  }
}

/** Keeps one that was finished; figures still to be measured are none. */
export function keepReading(text: string): void {
  const reading = text.trim();
  if (!reading) return;
  const others = recentReadings().filter((one) => one !== reading);
  try {
    sessionStorage.setItem(KEY, JSON.stringify([reading, ...others].slice(0, MOST)));
  } catch {
    // A browser that keeps nothing offers nothing to pick again.
  }
}
