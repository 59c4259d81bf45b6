import { catalogue } from "./catalogue";
import en from "./en/estimate.json";

export const t = catalogue("estimate", en);
