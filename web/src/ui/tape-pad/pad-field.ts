import { useSyncExternalStore } from "react";
import { Observed } from "@/api/observed";
import type { Tape } from "@/api/types";

/** The figure that the pad types into: what it is called, what stands in it, and how that is read. */
export interface PadField {
  input: HTMLInputElement;
  label: string;
  text: string;
  /** As what the text was last read, where that is known. */
  reads: string;
  tape: Tape;
  /** Its usual figures, where it is none that a tape reads. */
  steps: string[] | undefined;
  unit: string;
  invalid: boolean;
  onChange: (text: string) => void;
  /** To what is typed next. */
  onNext: (input: HTMLInputElement) => void;
}

const now = new Observed<PadField | null>(null);

/** The field that has the focus opens the pad, and tells it what changes. */
export const openPad = (field: PadField): void => now.change(field);

/** Its newest state, while it is the one. */
export function refreshPad(field: PadField): void {
  const shown = now.snapshot();
  if (shown?.input === field.input && !sameField(shown, field)) now.change(field);
}

/** It lost the focus, or left the page. */
export function closePad(input: HTMLInputElement | null): void {
  if (input && now.snapshot()?.input === input) now.change(null);
}

const sameField = (one: PadField, other: PadField): boolean =>
  one.text === other.text &&
  one.reads === other.reads &&
  one.label === other.label &&
  one.invalid === other.invalid &&
  one.onChange === other.onChange &&
  one.onNext === other.onNext;

export const usePadField = (): PadField | null => useSyncExternalStore(now.subscribe, now.snapshot);
