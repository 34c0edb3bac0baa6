/** Limits how many requests run and how many wait, so that the server's memory stays bounded. */
export class Turns {
  private running = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(
    private readonly atOnce: number,
    private readonly mostWaiting: number,
  ) {}

  /** Runs the work when its turn comes; null if too many are waiting, and then it never runs. */
  async take<Answer>(work: () => Promise<Answer>): Promise<Answer | null> {
    if (this.running >= this.atOnce) {
      if (this.waiting.length >= this.mostWaiting) return null;
      await new Promise<void>((turn) => this.waiting.push(turn));
    } else this.running++;
    try {
      return await work();
    } finally {
      // A waiting request takes over the slot; otherwise it is freed.
      const next = this.waiting.shift();
      if (next) next();
      else this.running--;
    }
  }
}
