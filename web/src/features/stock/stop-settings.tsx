import type { StopSetting } from "@/api/types";
import { t } from "@/words/stock";
import { nameOf } from "./sources";

/** Pieces of one length are cut one after another with the saw's stop set once. */
export function StopSettings({ stop, named = false }: { stop: StopSetting[]; named?: boolean }) {
  if (stop.length === 0) return null;
  return (
    <p className="tape mt-1 text-base">
      {t("stop.once")}{" "}
      {stop.map((one, at) => (
        <span key={`${nameOf(one)} ${one.length.reads}`}>
          {at > 0 && ", "}
          {named && nameOf(one) !== stop.slice(0, at).map(nameOf).at(-1) && `${nameOf(one)} `}
          <strong>{t("stop.setting", { pieces: one.count, length: one.length.reads })}</strong>
        </span>
      ))}
    </p>
  );
}
