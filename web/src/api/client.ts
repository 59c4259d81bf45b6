import createClient, { type Middleware } from "openapi-fetch";
import type { paths } from "./schema";
import type { Run } from "./types";

/** What the server refused, and why. `status` 0 means that no answer came. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly places: Record<string, string> = {},
    readonly theirs?: Run,
  ) {
    super(message);
  }
}

interface ProblemBody {
  detail?: string;
  places?: Record<string, string>;
  theirs?: Run;
}

const SAFE = new Set(["GET", "HEAD"]);

function cookie(name: string): string {
  const found = document.cookie.split("; ").find((part) => part.startsWith(`${name}=`));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : "";
}

const csrf: Middleware = {
  onRequest({ request }) {
    if (!SAFE.has(request.method)) request.headers.set("X-CSRFToken", cookie("csrftoken"));
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: "/" });
api.use(csrf);

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The answer's data, or an ApiError. */
export async function reply<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new ApiError(0, "No reply from the server.");
  }
  if (answer.response.ok) return answer.data as T;
  const body = (answer.error ?? {}) as ProblemBody;
  throw new ApiError(
    answer.response.status,
    body.detail ?? `The server answered ${answer.response.status}.`,
    body.places,
    body.theirs,
  );
}
