/** The name, led by its own sign: a pipe from a square end to a round one. */
export function Wordmark({ large = false }: { large?: boolean }) {
  const height = large ? 44 : 26;
  return (
    <span
      className={`inline-flex items-center gap-2 font-extrabold tracking-tight ${large ? "text-4xl" : "text-xl"}`}
    >
      <svg viewBox="0 0 44 26" height={height} aria-hidden="true">
        <path d="M5 20h9c8 0 8-14 17-14h6" fill="none" stroke="var(--accent)" strokeWidth="5" />
        <rect x="1" y="15" width="10" height="10" fill="var(--ink)" />
        <circle cx="37" cy="6" r="5.5" fill="var(--ink)" />
      </svg>
      <span className={large ? "" : "max-sm:hidden"}>Crelda</span>
    </span>
  );
}
