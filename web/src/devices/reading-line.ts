import type { Reading, Unit } from "./device";

// A line that a device sends by a serial line, over the air or as keys: "1816.5 mm", "71.52 in 80%", "-45.2 deg".
const LINE = /^\s*([+-]?\d{1,6}(?:[.,]\d{1,4})?)\s*(mm|cm|m|in|"|deg|°)\s*(?:(\d{1,3})\s*%)?\s*$/i;
const LONGEST = 40;

const UNITS: Record<string, [unit: Unit, factor: number]> = {
  mm: ["mm", 1],
  cm: ["mm", 10],
  m: ["mm", 1000],
  in: ["in", 1],
  '"': ["in", 1],
  deg: ["deg", 1],
  "°": ["deg", 1],
};

/** The reading in a line, or null where there is none. */
export function readingIn(line: string): Reading | null {
  const found = line.length <= LONGEST ? LINE.exec(line) : null;
  const [unit, factor] = UNITS[found?.[2]?.toLowerCase() ?? ""] ?? [];
  if (!found || !unit || !factor) return null;
  const value = Number(found[1]?.replace(",", ".")) * factor;
  const confidence = found[3] === undefined ? 1 : Math.min(Number(found[3]), 100) / 100;
  return { measures: unit === "deg" ? "angle" : "length", value, unit, confidence };
}

/** Puts pieces of text together to lines; what has no end within reason is let go. */
export function lineReader(onReading: (reading: Reading) => void): (text: string) => void {
  let rest = "";
  return (text) => {
    const lines = (rest + text).split(/\r\n|\r|\n/);
    rest = (lines.pop() ?? "").slice(-LONGEST);
    for (const line of lines) {
      const reading = readingIn(line);
      if (reading) onReading(reading);
    }
  };
}
