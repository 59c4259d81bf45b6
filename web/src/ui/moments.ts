/** Dates, times and counts as the person's own language and time zone write them. */

const DAY: Intl.DateTimeFormatOptions = { dateStyle: "medium" };
const DAY_AND_TIME: Intl.DateTimeFormatOptions = { ...DAY, timeStyle: "short" };

export const dayOf = (at: string): string => new Date(at).toLocaleDateString([], DAY);
export const timeOf = (at: string | number): string => new Date(at).toLocaleString([], DAY_AND_TIME);
export const counted = (count: number): string => count.toLocaleString([]);
