import { catalogue } from "./catalogue";
import en from "./en/walk.json";

export const t = catalogue("walk", en);
