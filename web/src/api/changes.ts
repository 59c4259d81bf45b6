import { t } from "@/words/shell";
import { ApiError, api, reply } from "./client";
import type { CorrectIn, Job, Scrap, Shoe, ShoeIn } from "./types";

/** A change of something that others may change too; `seen`: what of it was shown when it was changed. */
export type Change =
  | { kind: "job change"; target: number; seen: object; body: { name: string; place: string } }
  | { kind: "shoe change"; target: number; seen: object; body: ShoeIn }
  | { kind: "scrap change"; target: number; seen: object; body: CorrectIn };

/** What of each is changed, as the lists have it. */
export const seenOf = {
  job: ({ name, place }: Job) => ({ name, place }),
  shoe: ({ name, material, trade_size, machine, figures }: Shoe) => ({
    name,
    material,
    trade_size,
    machine,
    figures,
  }),
  scrap: ({ material, trade_size, length, place, end_a, end_b }: Scrap) => ({
    material,
    trade_size,
    length,
    place,
    end_a,
    end_b,
  }),
};

type Headers = Record<string, string>;

/** Makes a change at the server. */
export function changeThere(change: Change, headers: Headers): Promise<unknown> {
  switch (change.kind) {
    case "job change": {
      const params = { path: { job_id: change.target } };
      return reply(api.PUT("/api/jobs/{job_id}", { params, body: change.body, headers }));
    }
    case "shoe change": {
      const params = { path: { shoe_id: change.target } };
      return reply(api.PUT("/api/shoes/{shoe_id}", { params, body: change.body, headers }));
    }
    case "scrap change": {
      const params = { path: { scrap_id: change.target } };
      return reply(api.PUT("/api/rack/{scrap_id}", { params, body: change.body, headers }));
    }
  }
}

/** Raises where it is no more as it was when it was changed here: what the other wrote is not written over. */
export async function sameAsSeen({ kind, target, seen }: Change): Promise<void> {
  const now = await nowOf(kind, target);
  if (now === undefined) throw new ApiError(404, t("later.gone"));
  if (JSON.stringify(now) !== JSON.stringify(seen)) throw new ApiError(409, t("later.changed_meanwhile"));
}

async function nowOf(kind: Change["kind"], target: number): Promise<object | undefined> {
  const isIt = (one: { id: number }) => one.id === target;
  if (kind === "job change") return seenIn(await reply(api.GET("/api/jobs")), isIt, seenOf.job);
  if (kind === "shoe change") return seenIn(await reply(api.GET("/api/shoes")), isIt, seenOf.shoe);
  return seenIn((await reply(api.GET("/api/rack"))).scraps, isIt, seenOf.scrap);
}

function seenIn<One>(all: One[], isIt: (one: One) => boolean, seen: (one: One) => object) {
  const found = all.find(isIt);
  return found && seen(found);
}
