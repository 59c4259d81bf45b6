const MOST_FRAMES = 120;

/** Past the header: the next Tab goes to the first thing of the page itself, which may still be on its way. */
export function toTheWork(frames = MOST_FRAMES): void {
  const main = document.querySelector<HTMLElement>("main");
  if (main) {
    main.tabIndex = -1;
    main.focus({ preventScroll: true });
  } else if (frames) requestAnimationFrame(() => toTheWork(frames - 1));
}
