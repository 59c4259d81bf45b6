/** What was typed, as a number where it is one; else as it stands, so that it can be told. */
export const asCount = (text: string): number =>
  /^\d{1,4}$/.test(text.trim()) ? Number(text) : (text as unknown as number);
