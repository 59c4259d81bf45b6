import type { BenchAct } from "@/api/types";
import type { OutboxStore } from "./outbox-store";

/** Acts that an earlier version of the program kept in local storage go where acts are kept now, once. */
export async function moveOldQueues(store: OutboxStore, username: string, owner: string): Promise<void> {
  const prefix = `crelda.bench.${username}.`;
  for (const name of Object.keys(localStorage).filter((one) => one.startsWith(prefix))) {
    const runId = Number(name.slice(prefix.length));
    // One that is there already was moved before the page was closed.
    for (const act of JSON.parse(localStorage.getItem(name) ?? "[]") as BenchAct[])
      await store.append(owner, runId, act).catch(() => undefined);
    const kept = new Set((await store.all(owner)).map((one) => one.act.key));
    const left = (JSON.parse(localStorage.getItem(name) ?? "[]") as BenchAct[]).filter(
      (act) => !kept.has(act.key),
    );
    if (left.length === 0) localStorage.removeItem(name);
  }
}
