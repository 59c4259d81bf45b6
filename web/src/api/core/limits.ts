import { chosenLanguage } from "@/words/language";
import { shownFor } from "../owner";

/** The limits that plans are held to, as the server said them last: those of the crew, and of each run opened. */

const KEPT = "crelda.limits";
const MOST = 40;
const OFTEN = 60_000;

/** When each was asked for last, and when that is done. */
const asked = new Map<string, { at: number; done: Promise<void> }>();

const nameOf = (run: string | undefined): string => `${shownFor()} ${run ?? ""}`;

function kept(): Record<string, string> {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? "{}");
  } catch {
    return {};
  }
}

/** Asks the server for them, unless that was done just now; `run`: of whose crew, by number; undefined: one's own. */
export function refreshLimits(run: string | undefined): Promise<void> {
  const name = nameOf(run);
  const before = asked.get(name);
  if (!shownFor()) return Promise.resolve();
  if (before && Date.now() - before.at < OFTEN) return before.done;
  const done = askedFor(name, run);
  asked.set(name, { at: Date.now(), done });
  return done;
}

async function askedFor(name: string, run: string | undefined): Promise<void> {
  const headers = { "Accept-Language": chosenLanguage() };
  const answer = await fetch(`/api/limits/in-force${run ? `?of_run=${run}` : ""}`, { headers }).catch(
    () => null,
  );
  if (!answer?.ok) return void asked.delete(name);
  const { [name]: _, ...others } = kept();
  const newest = Object.fromEntries(Object.entries(others).slice(-MOST));
  localStorage.setItem(KEPT, JSON.stringify({ ...newest, [name]: await answer.text() }));
}

/** The limits for a run as they are known here; asked for where they are not, unless nobody answers. */
export const knownLimits = async (run: string | undefined): Promise<string | undefined> =>
  limitsOf(run) ?? refreshLimits(run).then(() => limitsOf(run));

/** The limits for a run; one's own where those of its crew were never asked for; undefined where none were. */
function limitsOf(run: string | undefined): string | undefined {
  const all = kept();
  return all[nameOf(run)] ?? all[nameOf(undefined)];
}
