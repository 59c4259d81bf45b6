const LONGEST_OPEN = 10 * 60_000;

/**
 * Gives each write its key. While no answer to it came, the same write has the same key: done once more by a
 * person who saw no answer it is still done once.
 */
export class WriteKeys {
  private readonly open = new Map<string, { key: string; at: number }>();

  constructor(private readonly newKey: () => string) {}

  keyOf(written: string, now: number): string {
    for (const [other, { at }] of this.open) if (now - at > LONGEST_OPEN) this.open.delete(other);
    const known = this.open.get(written) ?? { key: this.newKey(), at: now };
    this.open.set(written, known);
    return known.key;
  }

  answered(written: string): void {
    this.open.delete(written);
  }
}
