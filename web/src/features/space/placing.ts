import type { Place, Tape } from "@/api/types";

/** What is being typed of a box. */
export interface Typed {
  along: string;
  up: string;
  out: string;
  wall: "ahead" | "right" | "left" | "behind";
  wide: string;
  high: string;
  deep: string;
  /** How far off the middle of its side each pipe's knockout is, by run and end. */
  asides: Record<string, string>;
}

// A square box, as most are; by the tape that it is read on.
const USUAL: Record<"inch" | "mm", [string, string, string]> = {
  inch: ["4", "4", "2 1/8"],
  mm: ["102", "102", "54"],
};

/** A box as it was placed, or one to place. */
export function boxAsTyped(place: Place | undefined, tape: Tape): Typed {
  const [wide, high, deep] = USUAL[tape === "1 mm" ? "mm" : "inch"];
  if (!place) return { along: "", up: "", out: "0", wall: "ahead", wide, high, deep, asides: {} };
  const text = (value: string | number | null | undefined) =>
    value === null || value === undefined ? "" : String(value);
  return {
    along: text(place.along),
    up: text(place.up),
    out: text(place.out ?? "0"),
    wall: place.wall ?? "ahead",
    wide: text(place.wide),
    high: text(place.high),
    deep: text(place.deep),
    asides: Object.fromEntries(
      (place.knockouts ?? []).map(({ run, end, aside }) => [`${run} ${end}`, text(aside)]),
    ),
  };
}

/** A dash of any kind before a figure means the other way. */
export const asSigned = (text: string): string => text.trim().replace(/^[−–—]\s*/, "-");
