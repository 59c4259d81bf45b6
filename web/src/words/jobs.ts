import { catalogue } from "./catalogue";
import en from "./en/jobs.json";

export const t = catalogue("jobs", en);
