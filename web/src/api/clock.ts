import { Observed } from "./observed";

// What an answer takes on its way is no fault of a clock.
const WRONG = 2 * 60_000;

/** By how many milliseconds the server's clock is ahead of this device's; 0 where that is about right. */
class DeviceClock extends Observed<number> {
  /** An answer came with this Date header; nothing is known where it has none. */
  readonly heard = (date: string | null) => {
    const there = Date.parse(date ?? "");
    if (Number.isNaN(there)) return;
    const off = there - Date.now();
    const told = Math.abs(off) > WRONG ? off : 0;
    if ((told === 0) !== (this.snapshot() === 0)) this.change(told);
  };
}

export const clock = new DeviceClock(0);
