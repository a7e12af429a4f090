import { sql } from 'drizzle-orm'
import { ask } from '~~/server/db/door'
import { diskIsFull } from '~~/server/db/disk'
import { diskFull, Problem } from '~~/server/http/problem'
import { openRoute } from '~~/server/routing/route'

const LONGEST_MS = 2_000

/** Whether Plauder can serve now: its database answers, and there is room to write. */
export default openRoute({ uncounted: true }, async () => {
  if (diskIsFull()) throw diskFull()
  const late = new Promise<never>((_resolve, reject) =>
    setTimeout(
      reject,
      LONGEST_MS,
      new Problem(503, 'database-away', 'The database is away', 'The database did not answer within two seconds.', { retryAfter: 2 }),
    ).unref(),
  )
  await Promise.race([ask(sql`select 1`), late])
  return { status: 'ready' }
})
