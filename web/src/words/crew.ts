import { catalogue } from "./catalogue";
import en from "./en/crew.json";

export const t = catalogue("crew", en);
