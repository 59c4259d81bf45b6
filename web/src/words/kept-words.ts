import { chosenLanguage, type Language, remember } from "./language";

export type Sentences = Record<string, string>;
type ByView = Record<string, Sentences>;

const KEPT = "crelda.words";
const FILES = import.meta.glob<Sentences>("./es/*.json", { import: "default" });

/**
 * The sentences of the chosen language by view; none where that is English.
 *
 * Modules ask for them while they are evaluated, which waits for nothing: they were kept when the language was chosen.
 */
export function keptWords(): ByView {
  if (chosenLanguage() === "en") return {};
  try {
    return (JSON.parse(localStorage.getItem(KEPT) ?? "{}") as ByView) ?? {};
  } catch {
    return {};
  }
}

/** Keeps the sentences of the chosen language as this version of the program has them; they are told from the next start on. */
export async function refreshWords(): Promise<void> {
  if (chosenLanguage() === "en") return;
  const views = Object.entries(FILES).map(async ([file, load]) => [viewOf(file), await load()] as const);
  localStorage.setItem(KEPT, JSON.stringify(Object.fromEntries(await Promise.all(views))));
}

const viewOf = (file: string): string => file.replace(/^.*\/|\.json$/g, "");

/** Chooses a language; the page is opened anew in it. */
export async function chooseLanguage(language: Language): Promise<void> {
  remember(language);
  await refreshWords();
  location.reload();
}
