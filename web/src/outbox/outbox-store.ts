import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { BenchAct } from "@/api/types";

/** An act that is not known to be kept by the server: one record each, in the order in which they were done. */
export interface Kept {
  seq: number;
  /** Whose it is: a crew and a person in it. On a shared phone nobody sends what another has done. */
  owner: string;
  runId: number;
  act: BenchAct;
  /** Why the server refused it; it stays until it is tried again or let go. */
  refused: string | null;
}

/** Where acts wait. What was appended survives a closed page; each method is one transaction. */
export interface OutboxStore {
  append(owner: string, runId: number, act: BenchAct): Promise<void>;
  all(owner: string): Promise<Kept[]>;
  remove(seqs: number[]): Promise<void>;
  setRefused(seq: number, says: string | null): Promise<void>;
}

interface Schema extends DBSchema {
  acts: { key: number; value: Omit<Kept, "seq"> & { seq?: number }; indexes: { owner: string; key: string } };
}

const open = (name: string): Promise<IDBPDatabase<Schema>> =>
  openDB<Schema>(name, 1, {
    upgrade(database) {
      const acts = database.createObjectStore("acts", { keyPath: "seq", autoIncrement: true });
      acts.createIndex("owner", "owner");
      acts.createIndex("key", "act.key", { unique: true });
    },
    // A newer version of the program waits for nobody.
    blocking: (_now, _next, event) => (event.target as IDBDatabase).close(),
  });

/** The acts kept in this browser's IndexedDB. */
export class IndexedOutbox implements OutboxStore {
  private opened: Promise<IDBPDatabase<Schema>> | null = null;

  constructor(private readonly name = "crelda-outbox") {}

  /** What is arranged anew takes the place of what was arranged before and not sent. */
  async append(owner: string, runId: number, act: BenchAct): Promise<void> {
    const writing = (await this.database()).transaction("acts", "readwrite", { durability: "strict" });
    if (act.kind === "arrange")
      for (const one of await writing.store.index("owner").getAll(owner))
        if (one.runId === runId && one.act.kind === "arrange" && one.act.piece === act.piece && one.seq)
          await writing.store.delete(one.seq);
    await writing.store.add({ owner, runId, act, refused: null });
    await writing.done;
  }

  async all(owner: string): Promise<Kept[]> {
    const found = await (await this.database()).getAllFromIndex("acts", "owner", owner);
    return (found as Kept[]).sort((one, other) => one.seq - other.seq);
  }

  async remove(seqs: number[]): Promise<void> {
    const writing = (await this.database()).transaction("acts", "readwrite");
    await Promise.all(seqs.map((seq) => writing.store.delete(seq)));
    await writing.done;
  }

  async setRefused(seq: number, says: string | null): Promise<void> {
    const writing = (await this.database()).transaction("acts", "readwrite");
    const found = await writing.store.get(seq);
    if (found) await writing.store.put({ ...found, refused: says });
    await writing.done;
  }

  /** The acts of a run that has another number from now on. */
  async renumber(from: number, to: number): Promise<void> {
    const writing = (await this.database()).transaction("acts", "readwrite");
    for (const one of await writing.store.getAll())
      if (one.runId === from) await writing.store.put({ ...one, runId: to });
    await writing.done;
  }

  /** How many acts wait here, whoever did them. */
  async count(): Promise<number> {
    return (await this.database()).count("acts");
  }

  private database(): Promise<IDBPDatabase<Schema>> {
    this.opened ??= open(this.name).catch((error: unknown) => {
      this.opened = null;
      throw error;
    });
    return this.opened;
  }
}
