/** What was typed, as a number where it is one; else as it stands, so that it can be told. */
export const asCount = (text: string): number =>
  /^\d{1,4}$/.test(text.trim()) ? Number(text) : (text as unknown as number);

/** So many of a thing, in words. */
export const things = (count: number, thing: string): string => `${count} ${thing}${count === 1 ? "" : "s"}`;
