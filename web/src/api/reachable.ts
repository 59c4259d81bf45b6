import { Observed } from "./observed";

/** How the server stands, as the last requests found it; with a full disk it answers, and keeps nothing. */
export type ServerState = "answers" | "away" | "disk full";

// The server, its database, or a proxy before it has nothing to say just now.
const AWAY = new Set([502, 503, 504]);

/** Whether a request was answered by nobody (0), or by nobody who has something to say. */
export const isAway = (status: number): boolean => status === 0 || AWAY.has(status);

// Signed out, too slow, or asked too often: what was sent is as good as before, and is sent later.
const LATER = new Set([401, 408, 429]);

/** Whether sending the same again would not change the answer. */
export const isRefusal = (status: number): boolean => status >= 400 && status < 500 && !LATER.has(status);

export class Reachable extends Observed<ServerState> {
  constructor() {
    super("answers");
  }

  /** A request was answered with this status; 0: with none. */
  readonly heard = (status: number, diskFull = false) => {
    const away = isAway(status);
    const state = diskFull ? "disk full" : away ? "away" : "answers";
    if (state !== this.snapshot()) this.change(state);
  };
}

export const server = new Reachable();

/** Asks whether the server can do its work; whether it can is heard. */
export async function askWhetherReady(): Promise<void> {
  const answer = await fetch("/readyz", { cache: "no-store" }).catch(() => null);
  server.heard(answer?.status ?? 0);
}
