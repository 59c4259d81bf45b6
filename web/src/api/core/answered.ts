import { chosenLanguage } from "@/words/language";
import { askCore } from "./asking";
import { knownLimits } from "./limits";

/** What the core on this device answers, by the limits of a run (by number; undefined: one's own). Rejects where it refuses. */
export async function answeredHere<T>(question: string, given: object, run: string | undefined): Promise<T> {
  const limits = await knownLimits(run);
  if (limits === undefined) throw new Error("no limits");
  const asked = { question, given: JSON.stringify(given), limits, language: chosenLanguage() };
  const { found, text } = await askCore(asked);
  if (!found) throw new Error((JSON.parse(text) as { detail: string }).detail);
  return JSON.parse(text) as T;
}
