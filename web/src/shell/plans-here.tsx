import { useSyncExternalStore } from "react";
import { quick } from "@/api/core/asking";
import { core } from "@/api/core/keeping";
import { t } from "@/words/shell";

/** That this device plans by itself, or gets ready to; nothing where the core is not on it. */
export function PlansHere() {
  const { state } = useSyncExternalStore(core.subscribe, core.snapshot);
  const readiness = useSyncExternalStore(quick.subscribe, quick.snapshot);
  if (state !== "here") return null;
  return <> {readiness === "ready" ? t("notice.plans_here") : t("notice.plans_here_soon")}</>;
}
