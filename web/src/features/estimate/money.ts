import { chosenLanguage } from "@/words/language";

/** Money with two decimals; which, the crew knows. */
export const money = (amount: number): string =>
  new Intl.NumberFormat(chosenLanguage(), { minimumFractionDigits: 2, maximumFractionDigits: 2 }).format(
    amount,
  );

/** Hours with one decimal, or minutes where it is under an hour and a half. */
export const isInMinutes = (minutes: number): boolean => minutes < 90;

const rounded = (value: number, digits: number): string =>
  new Intl.NumberFormat(chosenLanguage(), { maximumFractionDigits: digits }).format(value);

export const minutesOf = (minutes: number): string => rounded(minutes, 1);
export const hoursOf = (minutes: number): string => rounded(minutes / 60, 1);
export const countOf = (count: number): string => rounded(count, 2);
