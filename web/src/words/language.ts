export type Language = "en" | "es";

/** The languages there are, each called as it calls itself; what one lacks is told in English. */
export const LANGUAGES: { value: Language; label: string }[] = [
  { value: "en", label: "English" },
  { value: "es", label: "Español" },
];

const KEY = "crelda.language";

/** The language chosen on this device. */
export function chosenLanguage(): Language {
  const kept = globalThis.localStorage?.getItem(KEY);
  return LANGUAGES.find((one) => one.value === kept)?.value ?? "en";
}

export const remember = (language: Language): void => localStorage.setItem(KEY, language);
