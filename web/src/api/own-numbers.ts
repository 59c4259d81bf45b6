/** Numbers of what was begun on this device: below zero, until the server gives it one of its own. */

export const isBegunHere = (id: number): boolean => id < 0;

const IN_A_MILLISECOND = 4096;
let last = 0;

/** A number that no other window of this device gives: the time, and twelve random bits; what is begun later is lower. */
export function ownNumber(now: Date): number {
  const number = -(now.getTime() * IN_A_MILLISECOND + Math.floor(Math.random() * IN_A_MILLISECOND));
  last = Math.min(number, last - 1);
  return last;
}
