import type { QueryClient } from "@tanstack/react-query";
import { dropKept } from "./kept";
import type { Me } from "./types";

const KEY = "crelda.owner";
const channel = new BroadcastChannel("crelda-person");

/** Whose something in this browser is: a person in a crew. */
export const ownerOf = (me: Pick<Me, "id" | "crew_id">): string => `${me.crew_id}.${me.id}`;

let shown = "";

/** Without a network it is shown for whoever was there last. */
export const showFor = (owner: string): void => {
  shown = owner;
};

/** For whom this tab shows what it shows; nothing before somebody is signed in. */
export const shownFor = (): string => shown;

/** What was kept here of answers given to somebody else is dropped before anything of it is shown. */
export async function dropOthers(queries: QueryClient, owner: string): Promise<void> {
  shown = owner;
  if (localStorage.getItem(KEY) === owner) return;
  queries.removeQueries({ predicate: (query) => query.queryKey[0] !== "me" });
  await dropKept();
  localStorage.setItem(KEY, owner);
}

/** Tells other tabs that somebody signed in or out, so that none goes on showing what another may not see. */
export const tellOtherTabs = (owner: string): void => channel.postMessage(owner);

/** Loads a tab anew once somebody else is signed in, or nobody. */
export function followOtherTabs(owner: string): () => void {
  channel.onmessage = ({ data }) => {
    if (data !== owner) window.location.reload();
  };
  return () => {
    channel.onmessage = null;
  };
}
