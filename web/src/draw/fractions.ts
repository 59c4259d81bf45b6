const SIXTEENTHS = 16;

/** A length as the tape reads it, to the nearest sixteenth, the way it is typed: 71 1/2. */
export function toTape(inches: number): string {
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

/** The length one nudge up or down the tape, never below nothing. */
export function nudged(inches: number, sixteenths: number): string {
  return toTape(Math.max(0, (Math.round(inches * SIXTEENTHS) + sixteenths) / SIXTEENTHS));
}

const DIGIT = 0.64;
const SMALL_DIGIT = 0.39;

/** About how wide a reading is when written `size` pixels high, its fraction set small. */
export function readingWidth(reads: string, size: number): number {
  const fraction = /(\d+)\/(\d+)/.exec(reads)?.[0] ?? "";
  return size * ((reads.length - fraction.length) * DIGIT + fraction.length * SMALL_DIGIT);
}
