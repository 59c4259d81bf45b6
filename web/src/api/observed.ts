/** Something that changes by itself and that pages show (`useSyncExternalStore`). */
export class Observed<T> {
  private readonly listeners = new Set<() => void>();

  constructor(private now: T) {}

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  readonly snapshot = (): T => this.now;

  change(now: T): void {
    this.now = now;
    for (const listener of this.listeners) listener();
  }
}
