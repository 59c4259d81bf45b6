/** What a navigation carries to a run that was begun just now: its first field has the focus. */
export const BEGUN = { begun: true };

export const isBegun = (state: unknown): boolean => (state as { begun?: boolean } | null)?.begun === true;
