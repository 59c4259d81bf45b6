import createClient, { type Middleware } from "openapi-fetch";
import { chosenLanguage } from "@/words/language";
import { t } from "@/words/shell";
import { clock } from "./clock";
import { either } from "./core/either";
import { newKey } from "./new-key";
import { shownFor } from "./owner";
import { server } from "./reachable";
import type { paths } from "./schema";
import type { Answer, TypedCalls } from "./typed-client";
import { Unchanged } from "./unchanged";
import { WriteKeys } from "./write-keys";

/** What the server refused, and why. `status` 0 means that no answer came. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly places: Record<string, string> = {},
    /** How things stand that another changed meanwhile: what the operation's 409 gives. */
    readonly theirs?: unknown,
    /** So many milliseconds later it may be asked again; 0 where that was not said. */
    readonly wait = 0,
    /** Name and password are right; the second factor's code is wanted too. */
    readonly codeWanted = false,
  ) {
    super(message);
  }
}

interface ProblemBody {
  detail?: string;
  places?: Record<string, string>;
  theirs?: unknown;
  code_wanted?: boolean;
}

const SAFE = new Set(["GET", "HEAD"]);
const SIGNED_IN_AS = "X-Signed-In-As";
const SIGN_IN = "/api/session";
const KEY = "Idempotency-Key";
const writes = new WriteKeys(newKey);
const unchanged = new Unchanged();
const PAUSE_BEFORE_SECOND_TRY = 700;

function cookie(name: string): string {
  const found = document.cookie.split("; ").find((part) => part.startsWith(`${name}=`));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : "";
}

// What is asked of a run as it is typed: it may be another crew's, with limits of its own.
const OF_A_RUN = new Set<string>([
  "GET /api/shoes",
  "POST /api/plan",
  "POST /api/remedies",
  "POST /api/pipe-rack",
  "POST /api/pipe-rack/ways",
  "POST /api/ways",
  "POST /api/closing",
  "POST /api/check-marks",
]);

/** The run whose page is open, by its number. */
export const openRun = (): string | undefined => /^\/runs\/(\d+)\//.exec(window.location.pathname)?.[1];

/** The same, with the run whose page is open. */
async function ofTheOpenRun(request: Request): Promise<Request> {
  const open = openRun();
  if (!open) return request;
  const { method, headers, signal } = request;
  return new Request(`${request.url}?of_run=${open}`, {
    method,
    headers,
    signal,
    body: SAFE.has(method) ? null : await request.text(),
  });
}

const asked: Middleware = {
  async onRequest({ request: made, schemaPath }) {
    const request = OF_A_RUN.has(`${made.method} ${schemaPath}`) ? await ofTheOpenRun(made) : made;
    request.headers.set("Accept-Language", chosenLanguage());
    if (SAFE.has(request.method)) return request;
    request.headers.set("X-CSRFToken", cookie("csrftoken"));
    // Another may have signed in since, in another tab: what one did is not done in the other's name.
    if (shownFor() && schemaPath !== SIGN_IN) request.headers.set(SIGNED_IN_AS, shownFor());
    return request;
  },
};

/** An answer with all of its body, or a rejection where that breaks off. */
async function whole(request: Request): Promise<Response> {
  const { body, status, statusText, headers } = await fetch(request);
  const read = body && (await new Response(body).arrayBuffer());
  // An answer of 204 has none, and may not be given an empty one.
  return new Response(read?.byteLength ? read : null, { status, statusText, headers });
}

/** Sends a write with its key; where no answer comes it is sent once more, and done once all the same. */
async function send(request: Request): Promise<Response> {
  if (SAFE.has(request.method)) return unchanged.ask(request, shownFor(), fetch);
  const written = `${request.method} ${request.url}\n${await request.clone().text()}`;
  // Some have a key of their own, which outlasts the page.
  if (!request.headers.has(KEY)) request.headers.set(KEY, writes.keyOf(written, Date.now()));
  const again = request.clone();
  const answer = await whole(request).catch(async (error: unknown) => {
    if (!navigator.onLine || request.signal.aborted) throw error;
    await new Promise((resolve) => setTimeout(resolve, PAUSE_BEFORE_SECOND_TRY));
    return whole(again);
  });
  if (isOurs(answer)) writes.answered(written);
  return answer;
}

/** Whether it is the server's word on the write: a proxy before it may give up while it is still done. */
function isOurs({ status, headers }: Response): boolean {
  const kind = headers.get("Content-Type") ?? "";
  return status < 500 && (status === 204 || kind.includes("json"));
}

/** The same, and whether the server answers is heard. */
async function heard(request: Request): Promise<Response> {
  try {
    const answer = await send(request);
    clock.heard(answer.headers.get("Date"));
    server.heard(answer.status, answer.headers.get("X-Crelda-Disk") === "full");
    const signedIn = answer.headers.get(SIGNED_IN_AS);
    if (signedIn && signedIn !== shownFor()) window.location.reload();
    return answer;
  } catch (error) {
    if (!request.signal.aborted) server.heard(0);
    throw error;
  }
}

const client = createClient<paths>({ baseUrl: "/", fetch: (request) => either(request, heard) });
client.use(asked);
export const api = client as unknown as TypedCalls;

/** The answer's data, or an ApiError. */
export async function reply<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new ApiError(0, t("server.no_reply"));
  }
  if (answer.response.ok) return answer.data as T;
  const body = (answer.error ?? {}) as ProblemBody;
  throw new ApiError(
    answer.response.status,
    body.detail ?? t("server.answered", { status: answer.response.status }),
    body.places,
    body.theirs,
    1000 * Number(answer.response.headers.get("Retry-After") ?? 0),
    body.code_wanted,
  );
}
