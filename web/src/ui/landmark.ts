/** Where what opens over a page stands in its tree: within the page's main part, as all that is on it. */
export const landmark = (): HTMLElement | undefined =>
  document.querySelector<HTMLElement>("main") ?? undefined;
