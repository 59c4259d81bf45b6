import { catalogue } from "./catalogue";
import en from "./en/trade.json";

export const t = catalogue("trade", en);
