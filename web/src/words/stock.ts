import { catalogue } from "./catalogue";
import en from "./en/stock.json";

export const t = catalogue("stock", en);
