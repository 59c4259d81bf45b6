import { catalogue } from "./catalogue";
import en from "./en/racks.json";

export const t = catalogue("racks", en);
