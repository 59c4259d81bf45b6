import { catalogue } from "./catalogue";
import en from "./en/counts.json";

export const t = catalogue("counts", en);
