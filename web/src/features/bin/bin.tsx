import { useBin, useMe, useRestore } from "@/api/queries";
import type { Binned } from "@/api/types";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";

export type JustBinned = Pick<Binned, "kind" | "id" | "name">;

/** Said right after something was deleted: it lies in the bin, and comes back with one touch. */
export function Undo({ binned, onDone }: { binned: JustBinned; onDone: () => void }) {
  const restore = useRestore();
  return (
    <div
      role="status"
      className="sticky top-2 z-10 mt-4 flex flex-wrap items-center gap-3 rounded-md border border-ink bg-paper px-4 py-2 shadow-lg"
    >
      <span className="text-lg">“{binned.name}” is in the bin.</span>
      {restore.error && <Notice severity="stop">{restore.error.message}</Notice>}
      <span className="ml-auto flex gap-2">
        <Button
          look="main"
          className="min-h-11"
          disabled={restore.isPending}
          onClick={() => restore.mutate(binned, { onSuccess: onDone })}
        >
          Undo
        </Button>
        <Button look="quiet" className="min-h-11" onClick={onDone}>
          Leave it there
        </Button>
      </span>
    </div>
  );
}

/** What the crew deleted of some kinds, to be taken out again by its lead. */
export function Bin({ kinds }: { kinds: Binned["kind"][] }) {
  const isLead = useMe().data?.role === "lead";
  const bin = useBin(isLead);
  const lies = bin.data?.filter((one) => kinds.includes(one.kind)) ?? [];
  if (!isLead || lies.length === 0) return null;
  return (
    <section aria-labelledby="bin" className="mt-10">
      <h2 id="bin" className="text-xl font-bold">
        In the bin
      </h2>
      <ul className="mt-2 rounded-lg border border-line bg-paper">
        {lies.map((one) => (
          <BinnedLine key={`${one.kind} ${one.id}`} binned={one} />
        ))}
      </ul>
    </section>
  );
}

function BinnedLine({ binned }: { binned: Binned }) {
  const restore = useRestore();
  const at = new Date(binned.binned_at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" });
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line/60 px-4 py-1.5 last:border-b-0">
      <span className="text-lg font-semibold">{binned.name || "Without a name"}</span>
      <span className="text-soft">
        {binned.kind}
        {binned.where && `, ${binned.where}`}
      </span>
      <span className="text-[15px] text-soft">
        deleted by {binned.binned_by}, {at}
      </span>
      <Button
        className="ml-auto min-h-11"
        disabled={restore.isPending}
        onClick={() => restore.mutate(binned)}
      >
        Take it out
      </Button>
      {restore.error && <Notice severity="stop">{restore.error.message}</Notice>}
    </li>
  );
}
