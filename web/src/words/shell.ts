import { catalogue } from "./catalogue";
import en from "./en/shell.json";

export const t = catalogue("shell", en);
