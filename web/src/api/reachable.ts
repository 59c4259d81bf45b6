/** Whether the server answers, as the last requests found it. */
type Listener = () => void;

// The server, its database, or a proxy before it has nothing to say just now.
const AWAY = new Set([502, 503, 504]);

export class Reachable {
  private answers = true;
  private readonly listeners = new Set<Listener>();

  /** A request was answered with this status; 0: with none. */
  readonly heard = (status: number) => {
    const answers = status !== 0 && !AWAY.has(status);
    if (answers === this.answers) return;
    this.answers = answers;
    for (const listener of this.listeners) listener();
  };

  readonly subscribe = (listener: Listener) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  readonly snapshot = () => this.answers;
}

export const server = new Reachable();

/** Asks whether the server can do its work; whether it can is heard. */
export async function askWhetherReady(): Promise<void> {
  const answer = await fetch("/readyz", { cache: "no-store" }).catch(() => null);
  server.heard(answer?.status ?? 0);
}
