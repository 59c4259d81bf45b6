import { createStore, del, entries, get, set, update } from "idb-keyval";
import { t } from "@/words/shell";
import { type Change, changeThere, sameAsSeen } from "./changes";
import { ApiError, api, reply } from "./client";
import { newKey } from "./new-key";
import { Observed } from "./observed";
import { onceAtATime } from "./once-at-a-time";
import { isBegunHere, ownNumber } from "./own-numbers";
import { shownFor } from "./owner";
import { isAway, isRefusal, server } from "./reachable";
import type { ScrapIn, ShoeIn } from "./types";

/** What can be added, or changed, where the server is out of reach. */
export type Thing =
  | { kind: "job"; body: { name: string; place: string } }
  | { kind: "scrap"; body: ScrapIn }
  | { kind: "shoe"; body: ShoeIn }
  | Change;

/** One that was added or changed on this device and is not with the server yet. */
export type Later = Thing & {
  id: number;
  /** With which it is sent, once for all. */
  key: string;
  at: string;
  /** It went off once, and whether it arrived was not heard. */
  tried: boolean;
  /** Why the server did not take it; it stays until it is let go. */
  refused?: string;
};

/** In a job's place once the server has it: runs that were begun in it go there. */
interface Moved {
  movedTo: number;
}

const STORE = createStore("crelda-later", "later");
const keyOf = (id: number): string => `${shownFor()} ${id}`;

/** What waits on this device, oldest first, as the lists show it. */
class Waiting extends Observed<readonly Later[]> {
  constructor() {
    super([]);
  }

  /** Looks what there is of whoever is shown. */
  async look(): Promise<void> {
    const all = await entries<string, Later | Moved>(STORE).catch(() => []);
    const mine = all.filter(([key]) => key.startsWith(`${shownFor()} `)).map(([, thing]) => thing);
    this.change(mine.filter((thing) => "kind" in thing).sort((one, other) => other.id - one.id));
  }
}

export const waiting = new Waiting();

/**
 * Adds or changes something: at the server, or, where that is out of reach, on this device. Rejects where it is refused,
 * or nothing can keep it.
 */
export async function nowOrLater(thing: Thing): Promise<void> {
  const key = newKey();
  const tried = navigator.onLine && server.snapshot() !== "away";
  if (tried) {
    try {
      await write(thing, key);
      return;
    } catch (error) {
      if (!(error instanceof ApiError && isAway(error.status))) throw error;
    }
  }
  const now = new Date();
  // One that went off may have arrived: it stays what was sent.
  const kept = tried ? thing : dated(thing, now);
  const later: Later = { ...kept, id: ownNumber(now), key, at: now.toISOString(), tried };
  await set(keyOf(later.id), later, STORE).catch(() => {
    throw new ApiError(0, t("outbox.no_room"));
  });
  if ("target" in thing) await onlyTheLast(thing, later.id);
  await waiting.look();
}

/** What is changed once more before it is sent is sent as it was changed last. */
async function onlyTheLast({ kind, target }: Change, last: number): Promise<void> {
  const before = waiting
    .snapshot()
    .filter((one) => one.kind === kind && "target" in one && one.target === target && one.id !== last);
  for (const { id } of before) await del(keyOf(id), STORE);
}

/** A scrap lies there from when it was laid there. */
const dated = (thing: Thing, now: Date): Thing =>
  thing.kind === "scrap"
    ? { ...thing, body: { ...thing.body, since: thing.body.since ?? now.toISOString() } }
    : thing;

/** The number of what was made, where it has one that others go by. */
async function write(thing: Thing, key: string): Promise<number | undefined> {
  const headers = { "Idempotency-Key": key };
  if (thing.kind === "job") return (await reply(api.POST("/api/jobs", { body: thing.body, headers }))).id;
  if (thing.kind === "scrap") await reply(api.POST("/api/rack", { body: thing.body, headers }));
  else if (thing.kind === "shoe") await reply(api.POST("/api/shoes", { body: thing.body, headers }));
  else await changeThere(thing, headers);
  return undefined;
}

/** Sends what waits, oldest first; gives whether anything arrived. Stops where the server is out of reach. */
export async function sendLater(): Promise<boolean> {
  await waiting.look();
  const due = waiting.snapshot().filter((thing) => !thing.refused);
  for (const thing of due) {
    try {
      await send(thing);
    } catch (error) {
      if (!(error instanceof ApiError && isRefusal(error.status))) return false;
    }
  }
  return due.length > 0;
}

const send = (thing: Later): Promise<number | undefined> =>
  onceAtATime(`thing ${thing.id}`, () => sent(thing));

async function sent(thing: Later): Promise<number | undefined> {
  try {
    if ("target" in thing && !thing.tried) {
      await sameAsSeen(thing);
      // From now on it may have arrived: the same again does nothing twice, and is no more compared.
      await update<Later | undefined>(keyOf(thing.id), asTried, STORE);
    }
    const movedTo = await write(thing, thing.key);
    if (movedTo === undefined) await del(keyOf(thing.id), STORE);
    else await set(keyOf(thing.id), { movedTo } satisfies Moved, STORE);
    return movedTo;
  } catch (error) {
    if (error instanceof ApiError && isRefusal(error.status))
      await update<Later | undefined>(
        keyOf(thing.id),
        (now) => now && { ...now, refused: error.message },
        STORE,
      );
    throw error;
  } finally {
    await waiting.look();
  }
}

const asTried = (now: Later | undefined) => now && { ...now, tried: true };

/** What was refused is let go. */
export async function letGo(id: number): Promise<void> {
  await del(keyOf(id), STORE);
  await waiting.look();
}

/** A job's number at the server; one that was added here is sent first. */
export async function jobNumber(id: number): Promise<number> {
  if (!isBegunHere(id)) return id;
  const job = await get<Later | Moved>(keyOf(id), STORE);
  const found = job && ("movedTo" in job ? job.movedTo : await send(job));
  if (found === undefined) throw new ApiError(404, t("later.no_job"));
  return found;
}
