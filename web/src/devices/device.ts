// What a measuring device or a printer is to the program, whatever it is linked by. Told for others in docs/devices.md.

/** What a device measures. */
export type Measures = "length" | "angle";

export type Unit = "mm" | "in" | "deg";

/** One reading. */
export interface Reading {
  measures: Measures;
  value: number;
  unit: Unit;
  /** How sure the device is, from 0 to 1. */
  confidence: number;
  /** What its own body adds, in the same unit, where it was read from its front. */
  body?: number;
}

export type State = "off" | "connecting" | "on" | "failed";

/** What a device tells: how it stands, why where it failed, and what it read. */
export interface Told {
  onState: (state: State, says?: string) => void;
  onReading: (reading: Reading) => void;
}

/** A device that is linked. */
export interface Link {
  connect: () => Promise<void>;
  disconnect: () => void;
  /** Has it read; of a device that reads at its own button alone there is none. `found`: what a stand-in finds there. */
  read?: (found?: number) => void;
  /** Has it print a label, line by line. */
  print?: (lines: string[]) => Promise<void>;
}

export type MakeLink = (told: Told) => Link;

/** Below this a reading is not put anywhere without being asked for. */
export const SURE_ENOUGH = 0.6;
