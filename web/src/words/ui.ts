import { catalogue } from "./catalogue";
import en from "./en/ui.json";

export const t = catalogue("ui", en);
