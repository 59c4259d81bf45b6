import { get, set } from "idb-keyval";
import { ApiError } from "./client";
import { RUNS } from "./kept";
import { shownFor } from "./owner";
import { isAway } from "./reachable";

/** As it was answered last; `keptAt`: when that was, where it comes from this device. */
export type Kept<T> = T & { keptAt?: number };

const isOutOfReach = (error: unknown): boolean => error instanceof ApiError && isAway(error.status);

const A_MINUTE = 60_000;

/** Answers that are kept on this device one by one: one of them changes, and not all are written again. */
export class KeptOnes<T extends object> {
  private readonly written = new Map<string, { text: string; at: number }>();

  constructor(
    private readonly kind: string,
    private readonly ask: (id: number) => Promise<T>,
  ) {}

  /** Under which one is kept: by whose it is. */
  keyOf(id: number): string {
    return `${shownFor()} ${this.kind}${id}`;
  }

  kept(id: number): Promise<Kept<T> | undefined> {
    return get<Kept<T>>(this.keyOf(id), RUNS).catch(() => undefined);
  }

  /** From the server, and kept. */
  async fresh(id: number): Promise<T> {
    const one = await this.ask(id);
    await this.keep(this.keyOf(id), one).catch(() => undefined);
    return one;
  }

  /** What is asked every few seconds is not written every few seconds while it is the same. */
  private async keep(key: string, one: T): Promise<void> {
    const now = Date.now();
    const text = JSON.stringify(one);
    const known = this.written.get(key);
    if (known?.text === text && now - known.at < A_MINUTE) return;
    await set(key, { ...one, keptAt: now }, RUNS);
    this.written.set(key, { text, at: now });
  }

  /** From the server; where that is out of reach, as it is kept here. */
  async either(id: number): Promise<Kept<T>> {
    try {
      return await this.fresh(id);
    } catch (error) {
      const kept = isOutOfReach(error) ? await this.kept(id) : undefined;
      if (kept) return kept;
      throw error;
    }
  }
}
