interface Kept {
  tag: string;
  body: string;
  headers: Headers;
}

/** What few pages ask again and again, each of them with a few hundred kilobytes at most. */
const MOST_KEPT = 12;

/**
 * Answers by their entity tags (RFC 9110): what is asked again is sent with the tag of the answer that is there, and the
 * server says in one word that it is still so. Browsers do so only with what they may store, which ours never is.
 */
export class Unchanged {
  private readonly kept = new Map<string, Kept>();

  /** Asks, for somebody (`whose`): nobody is given what another was answered. */
  async ask(
    request: Request,
    whose: string,
    fetched: (request: Request) => Promise<Response>,
  ): Promise<Response> {
    const key = `${whose} ${request.headers.get("Accept-Language")} ${request.url}`;
    const known = this.kept.get(key);
    if (known) request.headers.set("If-None-Match", known.tag);
    const answer = await fetched(request);
    if (known && answer.status === 304) return new Response(known.body, { headers: known.headers });
    const tag = answer.headers.get("ETag");
    if (answer.status !== 200 || !tag) return answer;
    const body = await answer.text();
    this.keep(key, { tag, body, headers: answer.headers });
    return new Response(body, { headers: answer.headers });
  }

  private keep(key: string, answer: Kept): void {
    this.kept.delete(key);
    this.kept.set(key, answer);
    const [oldest] = this.kept.keys();
    if (this.kept.size > MOST_KEPT && oldest) this.kept.delete(oldest);
  }
}
