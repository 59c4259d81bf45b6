import { useBin, useEmptyBin, useRestore } from "@/api/bin-queries";
import { useMe } from "@/api/queries";
import type { Binned } from "@/api/types";
import { Button } from "@/ui/button";
import { Confirm } from "@/ui/confirm";
import { RemoveIcon } from "@/ui/icons";
import { timeOf } from "@/ui/moments";
import { Notice } from "@/ui/notice";
import { t } from "@/words/bin";

export type JustBinned = Pick<Binned, "kind" | "id" | "name">;

/** Said right after something was deleted: it lies in the bin, and comes back with one touch. */
export function Undo({ binned, onDone }: { binned: JustBinned; onDone: () => void }) {
  const restore = useRestore();
  return (
    <div
      role="status"
      className="sticky top-2 z-10 mt-4 flex flex-wrap items-center gap-3 rounded-md border border-ink bg-paper px-4 py-2 shadow-lg"
    >
      <span className="text-lg">{t("told", { binned: binned.name })}</span>
      {restore.error && <Notice severity="stop">{restore.error.message}</Notice>}
      <span className="ml-auto flex gap-2">
        <Button
          look="main"
          className="min-h-11"
          disabled={restore.isPending}
          onClick={() => restore.mutate(binned, { onSuccess: onDone })}
        >
          {t("undo")}
        </Button>
        <Button look="quiet" className="min-h-11" onClick={onDone}>
          {t("leave")}
        </Button>
      </span>
    </div>
  );
}

/** What the crew deleted of some kinds, to be taken out again by its lead, or deleted for good. */
export function Bin({ kinds }: { kinds: Binned["kind"][] }) {
  const isLead = useMe().data?.role === "lead";
  const bin = useBin(isLead);
  const empty = useEmptyBin();
  const lies = bin.data?.filter((one) => kinds.includes(one.kind)) ?? [];
  if (!isLead || lies.length === 0) return null;
  return (
    <section aria-labelledby="bin" className="mt-10">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 id="bin" className="text-xl font-bold">
          {t("title")}
        </h2>
        <Confirm
          trigger={<Button className="ml-auto min-h-11">{t("empty")}</Button>}
          title={lies.length === 1 ? t("for_good.ask_single") : t("for_good.ask_all", { lies: lies.length })}
          says={t("for_good.log_stays", { forGood: FOR_GOOD })}
          act={t("for_good")}
          onAct={() => empty.mutate(lies)}
        />
      </div>
      {empty.error && <Notice severity="stop">{empty.error.message}</Notice>}
      <ul className="mt-2 rounded-lg border border-line bg-paper">
        {lies.map((one) => (
          <BinnedLine key={`${one.kind} ${one.id}`} binned={one} />
        ))}
      </ul>
    </section>
  );
}

const FOR_GOOD = t("for_good.says");

function BinnedLine({ binned }: { binned: Binned }) {
  const restore = useRestore();
  const empty = useEmptyBin();
  const at = timeOf(binned.binned_at);
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line/60 px-4 py-1.5 last:border-b-0">
      <span className="text-lg font-semibold">{binned.name || t("unnamed")}</span>
      <span className="text-soft">
        {binned.kind}
        {binned.where && `, ${binned.where}`}
      </span>
      <span className="text-[15px] text-soft">{t("deleted_by", { binned_by: binned.binned_by, at })}</span>
      <span className="ml-auto flex gap-1">
        <Button className="min-h-11" disabled={restore.isPending} onClick={() => restore.mutate(binned)}>
          {t("restore")}
        </Button>
        <Confirm
          trigger={
            <Button
              look="quiet"
              className="min-h-11 min-w-11"
              aria-label={t("for_good.label", { binned: binned.name })}
            >
              <RemoveIcon />
            </Button>
          }
          title={t("for_good.ask", { binned: binned.name })}
          says={FOR_GOOD}
          act={t("for_good")}
          onAct={() => empty.mutate([binned])}
        />
      </span>
      {(restore.error || empty.error) && (
        <Notice severity="stop">{(restore.error ?? empty.error)?.message}</Notice>
      )}
    </li>
  );
}
