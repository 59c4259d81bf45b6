/** Dates, times and counts as the person's own language and time zone write them. */

// A formatter takes far longer to make than to use.
const DAY = new Intl.DateTimeFormat([], { dateStyle: "medium" });
const DAY_AND_TIME = new Intl.DateTimeFormat([], { dateStyle: "medium", timeStyle: "short" });
const COUNT = new Intl.NumberFormat([]);

export const dayOf = (at: string): string => DAY.format(new Date(at));
/** A day that is the same in every time zone, as `2026-12-04`. */
export const dateOf = (day: string): string => DAY.format(new Date(`${day}T12:00`));
export const timeOf = (at: string | number): string => DAY_AND_TIME.format(new Date(at));
export const counted = (count: number): string => COUNT.format(count);
