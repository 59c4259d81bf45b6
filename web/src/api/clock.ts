/** How far this device's clock is from the server's, as its answers tell. */
type Listener = () => void;

// What an answer takes on its way is no fault of a clock.
const WRONG = 2 * 60_000;

export class DeviceClock {
  private off = 0;
  private readonly listeners = new Set<Listener>();

  constructor(private readonly now: () => number) {}

  /** An answer came with this Date header; nothing is known where it has none. */
  readonly heard = (date: string | null) => {
    const there = Date.parse(date ?? "");
    if (Number.isNaN(there)) return;
    const off = there - this.now();
    const told = Math.abs(off) > WRONG ? off : 0;
    if ((told === 0) === (this.off === 0)) return;
    this.off = told;
    for (const listener of this.listeners) listener();
  };

  readonly subscribe = (listener: Listener) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  /** By how many milliseconds the server is ahead; 0 where the clock is about right. */
  readonly snapshot = () => this.off;
}

export const clock = new DeviceClock(Date.now);
