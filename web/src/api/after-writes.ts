import type { QueryClient } from "@tanstack/react-query";

type Key = readonly unknown[];

/**
 * Asks again what a write made stale. An answer that is still awaited was asked for before it: the first one of a
 * view is dropped too, which asking again alone would wait for and take as new.
 */
export async function askAnew(queries: QueryClient, stale: readonly Key[]): Promise<void> {
  await Promise.all(
    stale.map(async (queryKey) => {
      await queries.cancelQueries({ queryKey, predicate: ({ state }) => state.data === undefined });
      await queries.invalidateQueries({ queryKey });
    }),
  );
}

/** Takes what a write was answered with; an answer that was asked for before it does not come after it. */
export async function takeAsNow<T>(queries: QueryClient, queryKey: Key, now: T): Promise<void> {
  await queries.cancelQueries({ queryKey, exact: true });
  queries.setQueryData(queryKey, now);
}
