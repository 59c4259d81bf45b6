import type { Heading } from "@/trade/words";

const DRAWN: Record<Heading, string> = {
  up: "M11 19V4M5 10L11 4L17 10",
  down: "M11 3V18M5 12L11 18L17 12",
  left: "M19 11H4M10 5L4 11L10 17",
  right: "M3 11H18M12 5L18 11L12 17",
  // A dart seen from its point, and from its feathers.
  out: "M11 3a8 8 0 1 0 .01 0zM11 9.5a1.5 1.5 0 1 0 .01 0z",
  in: "M11 3a8 8 0 1 0 .01 0zM5.5 5.5L16.5 16.5M16.5 5.5L5.5 16.5",
};

/** A direction as one facing the wall sees it. */
export function Arrow({ way }: { way: Heading }) {
  return (
    <svg width="32" height="32" viewBox="0 0 22 22" aria-hidden="true" className="shrink-0">
      <path d={DRAWN[way]} fill="none" stroke="currentColor" strokeWidth="2.4" strokeLinecap="round" />
    </svg>
  );
}
