import { catalogue } from "./catalogue";
import en from "./en/bin.json";

export const t = catalogue("bin", en);
