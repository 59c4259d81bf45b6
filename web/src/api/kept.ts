import { createAsyncStoragePersister } from "@tanstack/query-async-storage-persister";
import { createStore, del, delMany, get, keys, set } from "idb-keyval";
import { chosenLanguage } from "@/words/language";

const TWO_WEEKS = 14 * 24 * 60 * 60 * 1000;

/** Where answers marked as kept survive a closed page; storage that is forbidden only costs that. */
export const persister = createAsyncStoragePersister({
  key: "crelda.kept",
  storage: {
    getItem: async (key) => (await get<string>(key).catch(() => null)) ?? null,
    setItem: (key, value: string) => set(key, value).catch(() => undefined),
    removeItem: (key) => del(key).catch(() => undefined),
  },
});

/** Where runs are kept one by one, by whose they are. */
export const RUNS = createStore("crelda-runs", "runs");

/** All that is kept of what was answered to somebody goes. */
export async function dropKept(): Promise<void> {
  await persister.removeClient();
  // What somebody began here and is not sent is still theirs.
  const others = await keys<string>(RUNS).catch(() => []);
  await delMany(
    others.filter((key) => !key.includes(" -")),
    RUNS,
  ).catch(() => undefined);
}

/** What is kept, and how long. `buster` drops what another version of the program kept. */
export const KEEPING = {
  persister,
  maxAge: TWO_WEEKS,
  buster: `${import.meta.env.VITE_BUILD ?? "1"} ${chosenLanguage()}`,
  dehydrateOptions: {
    // Also where asking again failed: what was answered before is what there is without a network.
    shouldDehydrateQuery: (query: {
      meta?: Record<string, unknown> | undefined;
      state: { data?: unknown };
    }) => query.meta?.kept === true && query.state.data !== undefined,
  },
};
