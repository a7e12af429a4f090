import { sqlStateOf } from './failures'

/** As often is a transaction tried that lost against others; each pause lets those finish that were first. */
const MOST_TRIES = 12
const LONGEST_PAUSE_MS = 200

/** Who has lost this often is let in alone: a long transaction would lose for ever against many short ones. */
const ALONE_AFTER = 3

/** PostgreSQL's words for "another transaction was first": serialization failure, deadlock. */
const LOST = new Set(['40001', '40P01'])
const DUPLICATE = '23505'

/** Whether a statement failed only because of what another transaction did beside it: the same again may well go through. */
export const lostAgainstAnother = (error: unknown): boolean => LOST.has(sqlStateOf(error) ?? '')

/**
 * Does work again that another transaction was in the way of, as on a server where several run beside each other and
 * each is to see the others either whole or not at all. A row that is there already may have come from one beside it,
 * so that is looked at once more too: the second try finds it, and decides as it would have, had it come later.
 *
 * @param work is told whether nothing may run beside it this time
 * @throws what the work throws for its own sake, or has thrown at the last try
 * @see https://www.postgresql.org/docs/15/mvcc-serialization-failure-handling.html
 */
export async function untilItStands<T>(work: (alone: boolean) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await work(tries > ALONE_AFTER)
    }
    catch (error) {
      const most = lostAgainstAnother(error) ? MOST_TRIES : sqlStateOf(error) === DUPLICATE ? 2 : 1
      if (tries >= most) throw error
      await new Promise(resolve => setTimeout(resolve, Math.random() * Math.min(LONGEST_PAUSE_MS, 2 ** tries)))
    }
  }
}
