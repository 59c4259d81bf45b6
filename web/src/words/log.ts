import { catalogue } from "./catalogue";
import en from "./en/log.json";

export const t = catalogue("log", en);
