import { ApiError } from "@/api/client";
import type { Bench, BenchAct, Outcome } from "@/api/types";
import { t } from "@/words/shell";
import type { Kept, OutboxStore } from "./outbox-store";

/** How the outbox stands with the server. */
export type Standing = "quiet" | "sending" | "no network" | "busy" | "barred";

export interface Snapshot {
  kept: readonly Kept[];
  standing: Standing;
  /** Why it is barred: signed out, or not allowed any more. */
  says: string;
  /** What this device could not even keep; it is not entered. */
  notKept: string;
}

export interface Answer {
  outcomes: Outcome[];
  bench: Bench;
}

/** What the outbox needs of the world around it. */
export interface Surroundings {
  store: OutboxStore;
  post: (runId: number, acts: BenchAct[]) => Promise<Answer>;
  /** Runs `task` while no other tab sends. */
  alone: (task: () => Promise<void>) => Promise<void>;
  /** Tells other tabs that what is kept changed. */
  tell: () => void;
  /** Calls `task` after so many milliseconds; gives what cancels it. */
  later: (task: () => void, milliseconds: number) => () => void;
  /** Shows how a bench stands after acts were done. */
  sent: (bench: Bench) => Promise<void>;
}

/** As many as the server takes at once. */
export const MOST_AT_ONCE = 30;
const SHORTEST_PAUSE = 1000;
const LONGEST_PAUSE = 60_000;
/** What sending the same again would not change. */
const IS_FAULTY = new Set([400, 404, 422]);
const NOT_KEPT = t("outbox.no_room");

/**
 * Sends one person's acts in order, each with its key, until the server has them. Accepted ones leave; refused
 * ones stay with the reason; whatever else happens keeps all, and it is tried again.
 */
export class Outbox {
  private now: Snapshot = { kept: [], standing: "quiet", says: "", notKept: "" };
  private readonly listeners = new Set<() => void>();
  private most = MOST_AT_ONCE;
  private pause = 0;
  private sending = false;
  private entering = 0;
  private again = false;
  private closed = false;
  private cancel: (() => void) | null = null;

  constructor(
    private readonly owner: string,
    private readonly around: Surroundings,
  ) {}

  readonly snapshot = (): Snapshot => this.now;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Keeps an act, and only then shows it; gives whether it is kept. Sends it as soon as it can. */
  async act(runId: number, act: BenchAct): Promise<boolean> {
    this.entering += 1;
    this.show({ standing: "sending" });
    const isKept = await this.keep(runId, act).finally(() => {
      this.entering -= 1;
    });
    this.send();
    return isKept;
  }

  private async keep(runId: number, act: BenchAct): Promise<boolean> {
    try {
      await this.around.store.append(this.owner, runId, act);
    } catch {
      return this.actWithoutStore(runId, act);
    }
    await this.changed({ notKept: "" });
    return true;
  }

  /** Where nothing can be kept an act is sent at once, or it is not entered. */
  private async actWithoutStore(runId: number, act: BenchAct): Promise<boolean> {
    const answer = await this.around.post(runId, [act]).catch(() => null);
    const outcome = answer?.outcomes[0];
    if (answer) await this.around.sent(answer.bench);
    this.show({ notKept: outcome?.done ? "" : outcome?.says || NOT_KEPT });
    return outcome?.done ?? false;
  }

  async tryAgain(seq: number): Promise<void> {
    await this.around.store.setRefused(seq, null);
    await this.changed();
    this.send();
  }

  async letGo(seq: number): Promise<void> {
    await this.around.store.remove([seq]);
    await this.changed();
  }

  /** Reads what is kept; another tab, or this page before it was loaded anew, may have left something. */
  async look(): Promise<void> {
    this.show({ kept: await this.read() });
  }

  /** What is kept; what was read last where the store cannot be read just now. */
  private read(): Promise<readonly Kept[]> {
    return this.around.store.all(this.owner).catch(() => this.now.kept);
  }

  open(): void {
    this.closed = false;
    this.send();
  }

  close(): void {
    this.closed = true;
    this.cancel?.();
  }

  /** Sends what waits, now; the network may just be back. */
  readonly send = (): void => {
    if (this.closed) return;
    this.again = true;
    if (this.sending) return;
    this.sending = true;
    this.cancel?.();
    this.cancel = null;
    this.around
      .alone(() => this.sendAll())
      // A store that cannot be read now is tried again as a network would be.
      .catch(() => this.wait("busy"))
      .finally(() => {
        this.sending = false;
        if (this.again && !this.cancel) this.send();
      });
  };

  private async sendAll(): Promise<void> {
    this.again = false;
    for (;;) {
      await this.look();
      const batch = this.batch();
      const [first] = batch;
      // What is being entered is sent next, and only then all is sent.
      if (!first) return this.entering > 0 ? undefined : this.show({ standing: "quiet" });
      if (this.closed) return;
      this.show({ standing: "sending" });
      const goesOn = await this.around
        .post(
          first.runId,
          batch.map((one) => one.act),
        )
        .then(
          (answer) => this.answered(batch, answer),
          (error: unknown) => this.failed(batch, error),
        );
      if (!goesOn) return;
    }
  }

  /** The oldest act that waits, and those after it at the same run's bench. */
  private batch(): Kept[] {
    const waiting = this.now.kept.filter((one) => one.refused === null);
    return waiting.filter((one) => one.runId === waiting[0]?.runId).slice(0, this.most);
  }

  private async answered(batch: Kept[], { outcomes, bench }: Answer): Promise<boolean> {
    const told = new Map(outcomes.map((outcome) => [outcome.key, outcome]));
    const settled = batch.filter((one) => told.has(one.act.key));
    await this.around.sent(bench);
    await this.around.store.remove(
      settled.filter((one) => told.get(one.act.key)?.done).map((one) => one.seq),
    );
    for (const one of settled) {
      const outcome = told.get(one.act.key);
      if (!outcome?.done) await this.around.store.setRefused(one.seq, outcome?.says || t("outbox.refused"));
    }
    this.pause = 0;
    this.most = MOST_AT_ONCE;
    await this.changed();
    if (settled.length === 0) this.wait("busy");
    return settled.length > 0;
  }

  private async failed(batch: Kept[], error: unknown): Promise<boolean> {
    const { status, message, wait } = error instanceof ApiError ? error : new ApiError(0, String(error));
    const isBarred = status === 401 || status === 403;
    const [first] = batch;
    if (first && (IS_FAULTY.has(status) || status === 413) && batch.length > 1) {
      // One of them is at fault: by itself it is found, and takes no other with it.
      this.most = status === 413 ? Math.floor(batch.length / 2) : 1;
      return true;
    }
    if (first && IS_FAULTY.has(status)) {
      await this.around.store.setRefused(first.seq, message);
      await this.changed();
      return true;
    }
    // Signed out, not allowed, too large, too often, no answer, a fault there: nothing was done, all is kept.
    this.wait(isBarred ? "barred" : status === 0 ? "no network" : "busy", wait, isBarred ? message : "");
    return false;
  }

  private wait(standing: Standing, atLeast = 0, says = ""): void {
    this.pause = Math.min(LONGEST_PAUSE, Math.max(SHORTEST_PAUSE, this.pause * 2, atLeast));
    this.again = false;
    this.show({ standing, says });
    if (!this.closed) this.cancel = this.around.later(this.send, this.pause);
  }

  private async changed(more: Partial<Snapshot> = {}): Promise<void> {
    this.around.tell();
    this.show({ ...more, kept: await this.read() });
  }

  private show(more: Partial<Snapshot>): void {
    this.now = { ...this.now, ...more };
    for (const listener of this.listeners) listener();
  }
}
