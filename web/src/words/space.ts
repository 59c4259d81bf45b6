import { catalogue } from "./catalogue";
import en from "./en/space.json";

export const t = catalogue("space", en);
