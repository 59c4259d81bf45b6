import { useSyncExternalStore } from "react";
import { type Later, letGo, waiting } from "@/api/later";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/shell";

export const ONLY_HERE = t("later.waits");

/** What was added on this device and is not with the server yet. */
export function useWaiting<Kind extends Later["kind"]>(kind: Kind) {
  const all = useSyncExternalStore(waiting.subscribe, waiting.snapshot);
  return all.filter((one): one is Extract<Later, { kind: Kind }> => one.kind === kind);
}

/** In a list of such things: those that are only on this device, and why where they were refused. */
export function NotSent({ kind }: { kind: "scrap" | "shoe" }) {
  const added = useWaiting(kind);
  const changed = useWaiting(`${kind} change`);
  const things = [...added, ...changed];
  if (!things.length) return null;
  return (
    <ul aria-label={t("later.title")} className="mt-3 rounded-md border border-dashed border-line px-3 py-1">
      {things.map((thing) => (
        <li key={thing.id} className="flex min-h-11 flex-wrap items-center gap-x-3">
          <strong className="tape">{called(thing)}</strong>
          <StateOf thing={thing} />
        </li>
      ))}
    </ul>
  );
}

/** That it waits; or that it was refused, and it is let go. */
export function StateOf({ thing }: { thing: Later }) {
  if (!thing.refused) return <span className="text-soft">{ONLY_HERE}</span>;
  return (
    <>
      <Notice severity="stop">{thing.refused}</Notice>
      <Button look="quiet" className="ml-auto min-h-11" onClick={() => letGo(thing.id)}>
        {t("outbox.discard")}
      </Button>
    </>
  );
}

function called(thing: Later): string {
  if (!("length" in thing.body)) return thing.body.name;
  const { length, trade_size, material, place } = thing.body;
  return [`${length}, ${trade_size} ${material}`, place].filter(Boolean).join(", ");
}
