import { useSyncExternalStore } from "react";
import { Observed } from "@/api/observed";
import { t } from "@/words/devices";
import { bluetoothLink, hasBluetooth } from "./bluetooth";
import type { Link, MakeLink, Measures, Reading, State } from "./device";
import { localProgram } from "./local-program";
import { hasSerial, serialLink } from "./serial";
import { simulatedFinder, simulatedLaser, simulatedPrinter } from "./simulated";
import { wedgeLink } from "./wedge";

/** The devices that the program knows, and by what each can be linked. */
export type DeviceName = "laser" | "finder" | "printer";
export type Way = "none" | "simulated" | "program" | "bluetooth" | "serial" | "keys";

const always = () => true;
type Ways = Partial<Record<Way, { make: MakeLink; isThere: () => boolean }>>;
const BY_LINES: Ways = {
  bluetooth: { make: bluetoothLink, isThere: hasBluetooth },
  serial: { make: serialLink, isThere: hasSerial },
  keys: { make: wedgeLink, isThere: always },
};
const LINKS: Record<DeviceName, Ways> = {
  laser: {
    simulated: { make: simulatedLaser(), isThere: always },
    program: { make: localProgram("length"), isThere: always },
    ...BY_LINES,
  },
  finder: {
    simulated: { make: simulatedFinder(), isThere: always },
    program: { make: localProgram("angle"), isThere: always },
    ...BY_LINES,
  },
  printer: {
    simulated: { make: simulatedPrinter, isThere: always },
    program: { make: localProgram("length"), isThere: always },
  },
};
const MEASURES: Record<DeviceName, Measures | null> = { laser: "length", finder: "angle", printer: null };

/** How a device stands. */
export interface Standing {
  way: Way;
  state: State;
  says: string;
  /** Whether it reads when the program asks it to. */
  canRead: boolean;
  /** What it read last. */
  last: Reading | null;
}

const KEY = "crelda.devices";
const FIRST: Record<DeviceName, Way> = { laser: "none", finder: "simulated", printer: "simulated" };
const isGesture = (way: Way) => way === "bluetooth" || way === "serial";

const links: Partial<Record<DeviceName, Link>> = {};
const standing: Record<DeviceName, Observed<Standing>> = {
  laser: new Observed(off("none")),
  finder: new Observed(off("none")),
  printer: new Observed(off("none")),
};
const readers = new Set<(device: DeviceName, reading: Reading) => void>();

function off(way: Way): Standing {
  return { way, state: "off", says: "", canRead: false, last: null };
}

function tell(device: DeviceName, next: Partial<Standing>) {
  standing[device].change({ ...standing[device].snapshot(), ...next });
}

/** The ways in which a device can be linked in this browser. */
export const waysOf = (device: DeviceName): Way[] => {
  const there = Object.entries(LINKS[device]).filter(([, { isThere }]) => isThere());
  return ["none", ...there.map(([way]) => way as Way)];
};

/** Links a device another way, and keeps that on this machine. */
export function linkBy(device: DeviceName, way: Way): void {
  links[device]?.disconnect();
  delete links[device];
  tell(device, off(way));
  localStorage.setItem(KEY, JSON.stringify({ ...kept(), [device]: way }));
  void connect(device);
}

/** Links a device as it was chosen; again, where it failed. */
export async function connect(device: DeviceName): Promise<void> {
  const { way } = standing[device].snapshot();
  const link = LINKS[device][way]?.make({
    onState: (state, says = "") => tell(device, { state, says }),
    onReading: (reading) => {
      if (reading.measures !== MEASURES[device]) return;
      tell(device, { last: reading });
      for (const read of readers) read(device, reading);
    },
  });
  if (!link) return;
  links[device] = link;
  tell(device, { canRead: link.read !== undefined && MEASURES[device] !== null });
  try {
    await link.connect();
  } catch (error) {
    tell(device, { state: "failed", says: error instanceof Error ? error.message : "" });
  }
}

/** Has a device read; `found`: what a stand-in is to find there. */
export const askToRead = (device: DeviceName, found?: number): void => links[device]?.read?.(found);

/** Has labels printed, one after the other; rejects where the printer is not there. */
export async function print(labels: string[][]): Promise<void> {
  const { printer } = links;
  if (!printer?.print) throw new Error(t("printer.none"));
  for (const lines of labels) await printer.print(lines);
}

/** Hears every reading, until what is given back is called. */
export function onReading(read: (device: DeviceName, reading: Reading) => void): () => void {
  readers.add(read);
  return () => readers.delete(read);
}

function kept(): Partial<Record<DeviceName, Way>> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "{}");
  } catch {
    return {};
  }
}

/** Links what was linked on this machine before; what a browser links only at a press waits for it. */
export function linkAsBefore(): void {
  for (const device of Object.keys(standing) as DeviceName[]) {
    const way = kept()[device] ?? FIRST[device];
    tell(device, off(waysOf(device).includes(way) ? way : "none"));
    if (!isGesture(way)) void connect(device);
  }
}

export const useDevice = (device: DeviceName): Standing =>
  useSyncExternalStore(standing[device].subscribe, standing[device].snapshot);
