import { useSyncExternalStore } from "react";
import { Observed } from "@/api/observed";
import type { Tape } from "@/api/types";
import { toTape } from "@/draw/fractions";
import { keepReading } from "@/ui/tape-pad/recent";
import { type Reading, SURE_ENOUGH } from "./device";
import { askToRead, type DeviceName } from "./hub";

const IN_AN_INCH = 25.4;

/** A reading as it is typed on a tape: what the device's own body adds stands beside it. */
export function asTyped({ value, unit, body }: Reading, tape: Tape): string {
  if (unit === "deg") return String(Math.round(Math.abs(value) * 10) / 10);
  const inches = (of: number) => (unit === "mm" ? of / IN_AN_INCH : of);
  const read = toTape(Math.max(0, inches(value)), tape);
  return body ? `${read} + ${toTape(inches(body), tape)}` : read;
}

/** What became of a reading: the field that it was put into, or why it was not. */
export interface Put {
  device: DeviceName;
  text: string;
  reading: Reading;
  /** The field's name; null: none had the focus. */
  into: string | null;
  isSure: boolean;
}

const last = new Observed<Put | null>(null);

/** The figure that has the focus, if it takes what was read: fields say on which tape they read, or that it is an angle. */
function target({ measures }: Reading): HTMLInputElement | null {
  const field = document.activeElement;
  if (!(field instanceof HTMLInputElement) || field.disabled) return null;
  const reads = field.dataset.reads;
  return reads && (reads === "angle") === (measures === "angle") ? field : null;
}

/** Puts a reading into the figure that has the focus; one that the device is not sure of only when it is `taken`. */
export function putReading(device: DeviceName, reading: Reading, isTaken = false): void {
  const field = target(reading);
  const text = asTyped(reading, (field?.dataset.reads ?? "1/16") as Tape);
  const isSure = isTaken || reading.confidence >= SURE_ENOUGH;
  if (field && isSure) type(field, text);
  else if (reading.measures === "length" && isSure) keepReading(text);
  const into = field && isSure ? (field.getAttribute("aria-label") ?? "") : null;
  last.change({ device, text, reading, into, isSure });
  if (!isSure && field) forgetAtAnother(field);
}

/** A doubtful reading is of the figure that it was made for: at another one it is not offered any more. */
function forgetAtAnother(field: HTMLInputElement) {
  const onFocus = ({ target: next }: FocusEvent) => {
    if (!(next instanceof HTMLInputElement) || next === field || !next.dataset.reads) return;
    document.removeEventListener("focusin", onFocus);
    if (last.snapshot()?.isSure === false) last.change(null);
  };
  document.addEventListener("focusin", onFocus);
}

/** As if it had been typed there. */
function type(field: HTMLInputElement, text: string) {
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(field, text);
  field.dispatchEvent(new Event("input", { bubbles: true }));
}

/** Has a device read anew; what became of its last reading is told no more. */
export function readAnew(device: DeviceName): void {
  last.change(null);
  askToRead(device);
}

/** What became of the last reading. */
export const useLastPut = (): Put | null => useSyncExternalStore(last.subscribe, last.snapshot);
