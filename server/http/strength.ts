import { Problem } from './problem'

/**
 * How many requests may be under way before more are turned away: of those that can be asked again in a moment, and of
 * those that say something, such as a text or an event of a carrier. Each waits for the database; beyond this they
 * would wait longer than anybody does.
 */
const MOST = { reading: 80, writing: 400 }

let underWay = 0

/**
 * Does what was asked, or says at once that it is too much: what can wait makes room for what was written.
 *
 * @throws Problem 503 with when to ask again
 */
export async function withStrength<T>(method: string, work: () => Promise<T>): Promise<T> {
  const most = method === 'GET' || method === 'HEAD' ? MOST.reading : MOST.writing
  if (underWay >= most)
    throw new Problem(503, 'busy', 'Very busy', 'More is asked at this moment than can be answered. It is tried again by itself.', {
      retryAfter: 1,
    })
  underWay++
  try {
    return await work()
  }
  finally {
    underWay--
  }
}
