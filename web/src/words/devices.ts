import { catalogue } from "./catalogue";
import en from "./en/devices.json";

export const t = catalogue("devices", en);
