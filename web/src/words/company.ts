import { catalogue } from "./catalogue";
import en from "./en/company.json";

export const t = catalogue("company", en);
