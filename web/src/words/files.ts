import { catalogue } from "./catalogue";
import en from "./en/files.json";

export const t = catalogue("files", en);
