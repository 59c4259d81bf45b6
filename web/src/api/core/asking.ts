import { Observed } from "../observed";

/** Asking the core on this device. */

/** To a worker first: where the core's files are served. */
export interface Begin {
  folder: string;
}

/** From a worker, once it can answer, or cannot begin. */
export type Begun = { ready: true } | { broken: string };

export interface Asked {
  id: number;
  question: string;
  /** As JSON, as the limits. */
  given: string;
  limits: string;
  language: string;
}

export type Told = { id: number; found: boolean; text: string } | { id: number; failed: string };

/** Whether there is an answer, and it, or what the refusal says, as JSON. */
export interface Answered {
  found: boolean;
  text: string;
}

/** How far a worker is: Python and the core take some seconds to begin. */
export type Readiness = "off" | "starting" | "ready";

/** One worker with the core, begun at the first question. */
class Worked extends Observed<Readiness> {
  private worker: Worker | undefined;
  private last = 0;
  constructor() {
    super("off");
  }

  private readonly waiting = new Map<
    number,
    { resolve: (told: Answered) => void; reject: (why: Error) => void }
  >();

  ask(asked: Omit<Asked, "id">): Promise<Answered> {
    this.begin();
    this.last += 1;
    const id = this.last;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      this.worker?.postMessage({ ...asked, id } satisfies Asked);
    });
  }

  /** Begins the worker, where that was not done yet. */
  begin(): void {
    if (this.worker) return;
    const worker = new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });
    this.worker = worker;
    this.change("starting");
    worker.postMessage({ folder: __CORE__.folder } satisfies Begin);
    worker.onmessage = ({ data }: MessageEvent<Told | Begun>) => {
      if ("ready" in data) return this.change("ready");
      if ("broken" in data) return this.end(data.broken);
      const asker = this.waiting.get(data.id);
      this.waiting.delete(data.id);
      if ("failed" in data) asker?.reject(new Error(data.failed));
      else asker?.resolve(data);
    };
    worker.onerror = (event) => this.end(event.message);
  }

  /** Resolves once it is no more beginning. */
  begun(): Promise<void> {
    if (this.snapshot() !== "starting") return Promise.resolve();
    return new Promise((resolve) => {
      const unsubscribe = this.subscribe(() => {
        unsubscribe();
        resolve();
      });
    });
  }

  /** The worker could not be begun, or died: whoever waits is told so, and the next question begins another. */
  private end(why: string): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.change("off");
    for (const { reject } of this.waiting.values()) reject(new Error(why));
    this.waiting.clear();
  }
}

// What is shown at each key typed, or each bend made, does not wait for what is tried at length.
const AT_ONCE = new Set(["plan", "note/read", "note/write", "bench"]);
const slow = new Worked();
/** The worker that answers what is shown at each key typed. */
export const quick = new Worked();

export async function askCore(asked: Omit<Asked, "id">): Promise<Answered> {
  if (AT_ONCE.has(asked.question)) return quick.ask(asked);
  // Both beginning at once would have each other wait.
  await quick.begun();
  return slow.ask(asked);
}
