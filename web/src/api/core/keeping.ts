import { Observed } from "../observed";
import { server } from "../reachable";
import { quick } from "./asking";
import { allHere, canKeep, fetchAll, removeAll, TO_FETCH } from "./files";

/** Whether the core is on this device. */
export type Keeping =
  | { state: "unknown" | "impossible" | "none" | "here" | "failed" }
  | { state: "fetching"; bytes: number };

const WANTED = "crelda.core";

class KeptCore extends Observed<Keeping> {
  constructor() {
    super({ state: "unknown" });
  }

  get isHere(): boolean {
    return this.snapshot().state === "here";
  }

  /** Looks what is here, and brings it up to this build where it was wanted. */
  async look(): Promise<void> {
    if (!canKeep()) return this.change({ state: "impossible" });
    if (await allHere().catch(() => false)) return this.change({ state: "here" });
    if (localStorage.getItem(WANTED)) return await this.want();
    this.change({ state: "none" });
  }

  /** Fetches it, and keeps it up to date from then on. */
  async want(): Promise<void> {
    if (this.snapshot().state === "fetching") return;
    localStorage.setItem(WANTED, "1");
    this.change({ state: "fetching", bytes: 0 });
    try {
      // So that the browser does not take it away when room is short; it may say no.
      await navigator.storage?.persist?.().catch(() => false);
      await fetchAll((bytes) => this.change({ state: "fetching", bytes: Math.min(bytes, TO_FETCH) }));
      this.change({ state: "here" });
    } catch {
      this.change({ state: "failed" });
    }
  }

  /** Whether the browser has promised to keep what is here when room is short. */
  isPromised(): Promise<boolean> {
    return navigator.storage?.persisted?.().catch(() => false) ?? Promise.resolve(false);
  }

  async forget(): Promise<void> {
    localStorage.removeItem(WANTED);
    await removeAll();
    this.change({ state: "none" });
  }
}

export const core = new KeptCore();

/** Begins to make ready as soon as the server is out of reach, so that the next figure typed need not wait for it. */
export function readyWhenAway(): void {
  const look = () => {
    if (core.isHere && (!navigator.onLine || server.snapshot() === "away")) quick.begin();
  };
  window.addEventListener("offline", look);
  server.subscribe(look);
  core.subscribe(look);
}
