import { catalogue } from "./catalogue";
import en from "./en/bench.json";

export const t = catalogue("bench", en);
