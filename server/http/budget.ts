/** Others wait no longer than this for their turn. */
const STRETCH_MS = 12

/** Of one request: how long it may compute in all, and when it has to make room for others. */
export class Budget {
  private spent = 0
  private since = performance.now()

  /** @param ms of computing, not of waiting */
  constructor(private readonly ms: number) {}

  get isSpent(): boolean {
    return this.spent + performance.now() - this.since > this.ms
  }

  /** Lets others have their turn, if this one has computed for long enough. */
  async makeRoom(): Promise<void> {
    const stretch = performance.now() - this.since
    if (stretch < STRETCH_MS) return
    this.spent += stretch
    await new Promise(resolve => setImmediate(resolve))
    this.since = performance.now()
  }
}
