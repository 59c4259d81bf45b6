import i18next from "i18next";
import { keptWords } from "./kept-words";
import { chosenLanguage } from "./language";

/** The figures of a sentence; `ordinal` where its `count` is a place in an order. */
type Figures = Record<string, string | number> | { count: number; ordinal: true };
/** A key without the ending of a form that counts. */
type Counted<Key> = Key extends `${infer Base}_ordinal_${string}`
  ? Base
  : Key extends `${infer Base}_one` | `${infer Base}_other`
    ? Base
    : Key;
/** Tells the sentence of a key, with its figures in their places; one that counts takes `count`. */
export type Say<Key> = (key: Counted<Key>, figures?: Figures) => string;

const language = chosenLanguage();
const others = keptWords();
i18next.init({
  lng: language,
  fallbackLng: "en",
  resources: {},
  initAsync: false,
  // Sentences are put into the page as text, never as markup.
  interpolation: { escapeValue: false },
  keySeparator: false,
  nsSeparator: false,
});

/** The sentences of a view by their keys: English as given, and the chosen language's where it has them. */
export function catalogue<English extends Record<string, string>>(
  view: string,
  english: English,
): Say<keyof English & string> {
  i18next.addResourceBundle("en", view, english);
  const other = others[view];
  if (other) i18next.addResourceBundle(language, view, other);
  const say = i18next.getFixedT(null, view) as (key: string, options: object) => string;
  // A sentence without figures may have slots, which are put in where it is shown.
  return (key, figures) =>
    figures === undefined ? (other?.[key] ?? english[key] ?? key) : say(key, figures);
}
