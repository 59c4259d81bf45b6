import { t } from "@/words/devices";
import type { State } from "./device";
import type { DeviceName, Way } from "./hub";

export const DEVICES: Record<DeviceName, { called: string; says: string }> = {
  laser: { called: t("device.laser"), says: t("device.laser.says") },
  printer: { called: t("device.printer"), says: t("device.printer.says") },
  finder: { called: t("device.finder"), says: t("device.finder.says") },
};

export const WAYS: Record<Way, string> = {
  none: t("way.none"),
  simulated: t("way.simulated"),
  program: t("way.program"),
  bluetooth: t("way.bluetooth"),
  serial: t("way.serial"),
  keys: t("way.keys"),
};

export const STATES: Record<State, string> = {
  off: t("state.off"),
  connecting: t("state.connecting"),
  on: t("state.on"),
  failed: t("state.failed"),
};
