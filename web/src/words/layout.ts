import { catalogue } from "./catalogue";
import en from "./en/layout.json";

export const t = catalogue("layout", en);
