import { catalogue } from "./catalogue";
import en from "./en/shoes.json";

export const t = catalogue("shoes", en);
