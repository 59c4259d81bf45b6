/**
 * Asks one thing at a time: while an answer is awaited only the newest question is kept, and asked next.
 * Answers so come in order, and none is older than what is shown.
 */
export class LatestOnly<Asked, Got> {
  private busy = false;
  private next: { asked: Asked } | null = null;
  private stopped = false;

  constructor(
    private readonly ask: (asked: Asked) => Promise<Got>,
    private readonly tell: (asked: Asked, outcome: Outcome<Got>) => void,
  ) {}

  want(asked: Asked): void {
    this.stopped = false;
    if (this.busy) this.next = { asked };
    else void this.run(asked);
  }

  stop(): void {
    this.stopped = true;
    this.next = null;
  }

  private async run(asked: Asked): Promise<void> {
    this.busy = true;
    const outcome = await this.outcome(asked);
    this.busy = false;
    if (this.stopped) return;
    this.tell(asked, outcome);
    const next = this.next;
    this.next = null;
    if (next) void this.run(next.asked);
  }

  private async outcome(asked: Asked): Promise<Outcome<Got>> {
    try {
      return { got: await this.ask(asked) };
    } catch (error) {
      return { error };
    }
  }
}

export type Outcome<Got> = { got: Got; error?: undefined } | { got?: undefined; error: unknown };
