import { get, set } from "idb-keyval";
import { ApiError } from "./client";
import { RUNS } from "./kept";
import { shownFor } from "./owner";
import { isAway } from "./reachable";

/** As it was answered last; `keptAt`: when that was, where it comes from this device. */
export type Kept<T> = T & { keptAt?: number };

const isOutOfReach = (error: unknown): boolean => error instanceof ApiError && isAway(error.status);

/** Answers that are kept on this device one by one: one of them changes, and not all are written again. */
export class KeptOnes<T extends object> {
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
    await set(this.keyOf(id), { ...one, keptAt: Date.now() }, RUNS).catch(() => undefined);
    return one;
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
