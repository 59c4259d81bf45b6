import { isAway, server } from "../reachable";
import { type Answered, askCore } from "./asking";
import { core } from "./keeping";
import { knownLimits, refreshLimits } from "./limits";

const QUESTION =
  /\/api\/(plan|remedies|pipe-rack|pipe-rack\/ways|ways|closing|check-marks|note\/read|note\/write|compare)$/;
/** The server has so many milliseconds before the core here is asked too. */
const IN_TIME = 1500;

type Fetched = (request: Request) => Promise<Response>;

/** What this device can say itself. */
export interface Here {
  isHere: () => boolean;
  /** The limits that a run is planned by; undefined where they are not known here. */
  limits: (run: string | undefined) => Promise<string | undefined>;
  ask: typeof askCore;
}

const HERE: Here = {
  isHere: () => core.isHere,
  limits: knownLimits,
  ask: askCore,
};

/**
 * What is asked of a run without keeping it: the server while it answers in time, the core on this device as soon as it
 * does not, where it is here. They answer alike.
 */
export async function either(request: Request, fetched: Fetched, device = HERE): Promise<Response> {
  const question = QUESTION.exec(new URL(request.url).pathname)?.[1];
  if (!question || !device.isHere()) return fetched(request);
  const run = new URL(request.url).searchParams.get("of_run") ?? undefined;
  const given = await request.clone().text();
  const language = request.headers.get("Accept-Language") ?? "";
  const here = async () => {
    const limits = await device.limits(run);
    if (limits === undefined) throw new Error("no limits");
    return response(await device.ask({ question, given, limits, language }));
  };
  if (!navigator.onLine || server.snapshot() === "away") return here().catch(() => fetched(request));
  void refreshLimits(run);
  return raced(fetched(request), here, request.signal);
}

function raced(
  there: Promise<Response>,
  here: () => Promise<Response>,
  signal: AbortSignal,
): Promise<Response> {
  let answered = false;
  const usable = there.then((answer) => {
    if (isAway(answer.status)) throw new Error(String(answer.status));
    answered = true;
    return answer;
  });
  const late = new Promise<void>((resolve) => {
    const timer = setTimeout(resolve, IN_TIME);
    // No answer will come, or one has: in both cases there is nothing to wait for.
    void usable.catch(() => undefined).then(() => resolve(clearTimeout(timer)));
  });
  const second = late.then(() => {
    if (answered || signal.aborted) throw new Error("not needed");
    return here();
  });
  return Promise.any([usable, second]).catch(() => there);
}

function response({ found, text }: Answered): Response {
  return new Response(text, { status: found ? 200 : 422, headers: { "Content-Type": "application/json" } });
}
