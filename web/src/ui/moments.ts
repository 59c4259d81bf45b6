/** Dates, times and counts as the person's own language and time zone write them. */

// A formatter takes far longer to make than to use.
const DAY = new Intl.DateTimeFormat([], { dateStyle: "medium" });
const DAY_AND_TIME = new Intl.DateTimeFormat([], { dateStyle: "medium", timeStyle: "short" });
const COUNT = new Intl.NumberFormat([]);

export const dayOf = (at: string): string => DAY.format(new Date(at));
export const timeOf = (at: string | number): string => DAY_AND_TIME.format(new Date(at));
export const counted = (count: number): string => COUNT.format(count);
