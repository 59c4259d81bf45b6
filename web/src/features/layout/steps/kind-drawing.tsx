/** A kind of step as pipe, from its profile; so many times as large as it is drawn. */
export function KindDrawing({ profile, times = 1 }: { profile: string; times?: number }) {
  return (
    <svg width={34 * times} height={22 * times} viewBox="0 0 34 22" aria-hidden="true" className="shrink-0">
      <path d={profile} fill="none" stroke="currentColor" strokeWidth="3" strokeLinejoin="round" />
    </svg>
  );
}
