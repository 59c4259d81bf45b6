import { useSyncExternalStore } from "react";
import { clock } from "@/api/clock";
import { timeOf } from "@/ui/moments";
import { t } from "@/words/shell";
import { StatusLine } from "./status-line";

/** Said on every page where this device's clock is wrong, as by a flat battery. */
export function WrongClock() {
  const off = useSyncExternalStore(clock.subscribe, clock.snapshot);
  if (off === 0) return null;
  const here = Date.now();
  return (
    <StatusLine>{t("notice.wrong_clock", { here: timeOf(here), there: timeOf(here + off) })}</StatusLine>
  );
}
