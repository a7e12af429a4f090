/** ReadyForQuery is the last message of every answer, and its last byte says where the session stands. */
const IDLE = 'I'.charCodeAt(0)

interface Asked<Request> { channel: number | null, request: Request }

/**
 * Who may ask the one session next, when several connections share it: in the order in which they ask,
 * but while one of them is inside of a transaction, it alone. What is asked on no channel (a COPY, the
 * end) waits until nobody is inside of one.
 *
 * With several connections the database has the next statement at hand while the application still
 * takes in the answer to the one before.
 */
export class Turns<Request> {
  private waiting: Asked<Request>[] = []
  private holder: number | null = null

  ask(channel: number | null, request: Request): void {
    this.waiting.push({ channel, request })
  }

  next(): Asked<Request> | null {
    const index = this.holder === null ? 0 : this.waiting.findIndex(({ channel }) => channel === this.holder)
    return this.waiting.splice(index, index < 0 ? 0 : 1)[0] ?? null
  }

  /** @param answer the last bytes of what the database answered on this channel */
  answered(channel: number, answer: Uint8Array): void {
    const inTransaction = answer.length > 0 && answer[answer.length - 1] !== IDLE
    this.holder = inTransaction ? channel : null
  }

  /** The connection is gone; gives whether it has left a transaction open. */
  left(channel: number): boolean {
    const leftOpen = this.holder === channel
    if (leftOpen) this.holder = null
    return leftOpen
  }
}
