import { catalogue } from "./catalogue";
import en from "./en/people.json";

export const t = catalogue("people", en);
