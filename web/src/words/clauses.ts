import { catalogue } from "./catalogue";
import en from "./en/clauses.json";

const t = catalogue("clauses", en);
type Key = keyof typeof en;

const isKey = (key: string): key is Key => key in en;

/** A word of the clause table by its key; nothing where there is none. */
export const clauseWord = (key: string): string | undefined => (isKey(key) ? t(key) : undefined);
