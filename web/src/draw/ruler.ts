const MILLIMETRES = 25.4;

/** How a tape is drawn: its marks in whole inches or millimetres, which of them are numbered, long and longest. */
export interface Ruler {
  /** Of an inch. */
  unit: number;
  every: number;
  numbered: number;
  long: number;
  longest: number;
}

/** A tape in inches or millimetres, as finely divided as so many pixels an inch leave room for. */
export function rulerOf(scale: number, isMetric: boolean): Ruler {
  if (!isMetric) {
    const every = scale > 4 ? 1 : scale > 2 ? 3 : 6;
    return { unit: 1, every, numbered: scale > 5.5 ? 6 : 12, long: 6, longest: 12 };
  }
  const every = scale > 10 ? 10 : scale > 2.5 ? 50 : 100;
  return { unit: 1 / MILLIMETRES, every, numbered: scale > 11 ? 100 : 500, long: 100, longest: 1000 };
}

/** The numbers of the marks along a length in inches. */
export const marksAlong = ({ unit, every }: Ruler, length: number): number[] =>
  Array.from({ length: Math.floor(length / unit / every + 1e-6) + 1 }, (_, at) => at * every);
