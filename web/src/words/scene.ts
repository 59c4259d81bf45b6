import { catalogue } from "./catalogue";
import en from "./en/scene.json";

export const t = catalogue("scene", en);
