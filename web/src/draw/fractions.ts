import type { Tape } from "@/api/types";

const SIXTEENTHS = 16;
const MILLIMETRES = 25.4;
const METRIC: Tape = "1 mm";

/** What a nudge moves by, and a far one: a sixteenth and an inch, or a millimetre and ten. In inches. */
export const divisionOf = (tape: Tape): number => (tape === METRIC ? 1 / MILLIMETRES : 1 / SIXTEENTHS);
export const farOf = (tape: Tape): number => (tape === METRIC ? 10 / MILLIMETRES : 1);

/** A length the way it is typed for a tape: 71 1/2 to the nearest sixteenth, or 1816 in millimetres. */
export function toTape(inches: number, tape: Tape = "1/16"): string {
  if (tape === METRIC) return String(Math.round(inches * MILLIMETRES));
  const count = Math.round(inches * SIXTEENTHS);
  const whole = Math.floor(count / SIXTEENTHS);
  let top = count % SIXTEENTHS;
  let bottom = SIXTEENTHS;
  while (top && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  if (!top) return String(whole);
  return whole ? `${whole} ${top}/${bottom}` : `${top}/${bottom}`;
}

/** A length as a tape reads it, with its unit where that is not inches. */
export const reads = (inches: number, tape: Tape): string =>
  tape === METRIC ? `${toTape(inches, tape)} mm` : toTape(inches, tape);

/** The length moved by so much, on the tape and never below nothing; inches. */
export function nudged(inches: number, by: number, tape: Tape): number {
  const division = divisionOf(tape);
  return Math.max(0, Math.round(inches / division) * division + by);
}

/** What a length is by default where none is measured, on a tape: as typed in inches, or near it in millimetres. */
export const usual = (inches: string, millimetres: string, tape: Tape | undefined): string =>
  tape === METRIC ? millimetres : inches;

const DIGIT = 0.64;
const SMALL_DIGIT = 0.39;

/** About how wide a reading is when written `size` pixels high, its fraction set small. */
export function readingWidth(reads: string, size: number): number {
  const fraction = /(\d+)\/(\d+)/.exec(reads)?.[0] ?? "";
  return size * ((reads.length - fraction.length) * DIGIT + fraction.length * SMALL_DIGIT);
}
