import { useQuery } from "@tanstack/react-query";
import { Progress } from "radix-ui";
import { useSyncExternalStore } from "react";
import { TO_FETCH } from "@/api/core/files";
import { core } from "@/api/core/keeping";
import { Button } from "@/ui/button";
import { Notice } from "@/ui/notice";
import { t } from "@/words/devices";

const inMegabytes = (bytes: number): string => (bytes / 1_000_000).toFixed(1);
const SIZE = inMegabytes(TO_FETCH);

/** Whether what plans without a network is on this device; it is fetched, with how far it is, and taken off here. */
export function CoreHere() {
  return (
    <section aria-label={t("core")} className="rounded-lg border border-line bg-paper px-4 py-3">
      <h2 className="text-xl font-bold">{t("core")}</h2>
      <p className="text-soft">{t("core.says")}</p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Now />
      </div>
    </section>
  );
}

function Now() {
  const now = useSyncExternalStore(core.subscribe, core.snapshot);
  switch (now.state) {
    case "unknown":
      return null;
    case "impossible":
      return <Notice severity="caution">{t("core.impossible")}</Notice>;
    case "none":
      return (
        <>
          <p className="basis-full">{t("core.none", { size: SIZE })}</p>
          <Button look="main" className="min-h-11" onClick={() => core.want()}>
            {t("core.fetch")}
          </Button>
        </>
      );
    case "fetching": {
      const far = t("core.fetching", { here: inMegabytes(now.bytes), size: SIZE });
      return (
        <>
          <Progress.Root
            aria-label={t("core")}
            value={now.bytes}
            max={TO_FETCH}
            getValueLabel={() => far}
            className="h-3 grow overflow-hidden rounded-full bg-well"
          >
            <Progress.Indicator
              className="h-full bg-accent"
              style={{ width: `${(100 * now.bytes) / TO_FETCH}%` }}
            />
          </Progress.Root>
          <span>{far}</span>
        </>
      );
    }
    case "failed":
      return (
        <>
          <Notice severity="caution">{t("core.failed")}</Notice>
          <Button className="min-h-11" onClick={() => core.want()}>
            {t("core.again")}
          </Button>
        </>
      );
    case "here":
      return (
        <>
          <p className="basis-full">{t("core.here")}</p>
          <Promised />
          <Button className="min-h-11" onClick={() => core.forget()}>
            {t("core.remove")}
          </Button>
        </>
      );
  }
}

/** That the browser may take away what is kept, where it has not promised otherwise. */
function Promised() {
  const promised = useQuery({ queryKey: ["storage promised"], queryFn: () => core.isPromised(), gcTime: 0 });
  if (promised.data !== false) return null;
  return (
    <div className="basis-full">
      <Notice severity="caution">{t("core.not_promised")}</Notice>
    </div>
  );
}
