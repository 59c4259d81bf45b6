import type { Link, MakeLink, Told } from "./device";
import { keepPrinted } from "./printed";

/** Numbers between 0 and 1 in a row that is the same for the same seed (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** A draw from a normal distribution of deviation 1 (Box–Muller). */
const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** How the stand-ins behave: lengths in millimetres, angles in degrees. */
export const LASER = { noise: 0.8, body: 108, bad: 1 / 15, badBy: 180, shortest: 250, longest: 2500 };
export const FINDER = { factor: 0.992, constant: -0.3, hands: 0.35, tremble: 0.1 };

const SEED = 4;
const AT_ONCE = 120;

/** A link that is there at once, and whose readings come a moment after they are asked for. */
function standIn(told: Told, measure: (found?: number) => Parameters<Told["onReading"]>[0]): Link {
  let isOn = false;
  return {
    connect: async () => {
      isOn = true;
      told.onState("on");
    },
    disconnect: () => {
      isOn = false;
      told.onState("off");
    },
    read: (found) => {
      setTimeout(() => isOn && told.onReading(measure(found)), AT_ONCE);
    },
  };
}

/** A laser that is read from its front, trembles, and now and then hits something else, of which it is not sure. */
export const simulatedLaser =
  (seed = SEED): MakeLink =>
  (told) => {
    const random = seeded(seed);
    return standIn(told, (found) => {
      const far = found ?? LASER.shortest + random() * (LASER.longest - LASER.shortest);
      const isBad = random() < LASER.bad;
      const value = far - LASER.body + LASER.noise * normal(random) + (isBad ? LASER.badBy : 0);
      const confidence = isBad ? 0.3 : 0.95;
      return {
        measures: "length",
        value: Math.round(value * 10) / 10,
        unit: "mm",
        confidence,
        body: LASER.body,
      };
    });
  };

/** A finder on a bend that hands made to a dial (`found`): it sprang back, and neither hands nor finder are sure. */
export const simulatedFinder =
  (seed = SEED): MakeLink =>
  (told) => {
    const random = seeded(seed);
    return standIn(told, (found = 90) => {
      const bent = FINDER.factor * found + FINDER.constant + FINDER.hands * normal(random);
      const shown = Math.min(Math.max(bent + FINDER.tremble * normal(random), 0.1), 179.9);
      return { measures: "angle", value: Math.round(shown * 10) / 10, unit: "deg", confidence: 1 };
    });
  };

/** A label printer whose labels can be looked at. */
export const simulatedPrinter: MakeLink = ({ onState }) => ({
  connect: async () => onState("on"),
  disconnect: () => onState("off"),
  print: async (lines) => keepPrinted(lines),
});
