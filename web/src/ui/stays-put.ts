/** Where Radix puts what it has not placed yet. */
const NOT_PLACED = "-200%";
const AFTER_SCROLLING = 150;
// A scroll of a part of the page is told to that part alone.
const CAPTURED = { capture: true, passive: true };

/**
 * Keeps what is open where it opened: it does not move under the finger when the page behind it grows or shrinks. It goes
 * along only where the person scrolls the page.
 */
export function staysPut(content: HTMLElement | null): (() => void) | undefined {
  const placed = content?.parentElement;
  if (!placed) return;
  let timer = 0;
  const hold = () => {
    const { transform } = placed.style;
    if (transform.includes(NOT_PLACED)) return holdLater(0);
    placed.style.setProperty("--held", transform);
    placed.dataset.held = "";
  };
  const holdLater = (milliseconds: number) => {
    clearTimeout(timer);
    timer = window.setTimeout(hold, milliseconds);
  };
  const follow = ({ target }: Event) => {
    // What is open may have a scroll of its own.
    if (target instanceof Node && content.contains(target)) return;
    delete placed.dataset.held;
    holdLater(AFTER_SCROLLING);
  };
  const moves = ["scroll", "resize"] as const;
  for (const move of moves) window.addEventListener(move, follow, CAPTURED);
  holdLater(0);
  return () => {
    clearTimeout(timer);
    for (const move of moves) window.removeEventListener(move, follow, CAPTURED);
  };
}
