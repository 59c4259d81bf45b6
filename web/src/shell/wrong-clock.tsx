import { useSyncExternalStore } from "react";
import { clock } from "@/api/clock";
import { timeOf } from "@/ui/moments";
import { t } from "@/words/shell";

/** Said on every page where this device's clock is wrong, as by a flat battery. */
export function WrongClock() {
  const off = useSyncExternalStore(clock.subscribe, clock.snapshot);
  if (off === 0) return null;
  const here = Date.now();
  return (
    <p role="status" className="border-b border-line bg-tint px-4 py-2 text-[17px] font-medium print:hidden">
      {t("wrongClock", { here: timeOf(here), there: timeOf(here + off) })}
    </p>
  );
}
