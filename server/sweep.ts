import { sql, type SQL } from 'drizzle-orm'
import { once } from './db/door'
import { at } from './db/instants'
import { callEvent, carrierEvent, invitation, job, knock, knownDevice, mailedWait, setAsideEvent, signIn, smppSentPart } from './db/schema'
import { log } from './log/log'

const DAY = 86_400_000

/** What is kept for a while after it has served, by when its while begins and how long it is. */
const KEPT: { what: string, table: SQL, since: SQL, forMs: number }[] = [
  // whatever would add a job a second time looks at its own rows first: a text at its state, a call at its events
  { what: 'jobs that are done', table: sql`${job}`, since: sql`done_at`, forMs: 7 * DAY },
  // a teller tells again for hours, or days after an outage; until then its id is what makes twice once
  { what: 'events of carriers', table: sql`${carrierEvent}`, since: sql`received_at`, forMs: 30 * DAY },
  { what: 'events of exchanges', table: sql`${callEvent}`, since: sql`received_at`, forMs: 30 * DAY },
  { what: 'what was set aside and settled', table: sql`${setAsideEvent}`, since: sql`settled_at`, forMs: 90 * DAY },
  // what becomes of a text is told within days, or never
  { what: 'parts of texts', table: sql`${smppSentPart}`, since: sql`sent_at`, forMs: 30 * DAY },
  { what: 'knocks that are over', table: sql`${knock}`, since: sql`ended_at`, forMs: 30 * DAY },
  // nobody is mailed twice of one wait, and hardly any wait is longer
  { what: 'of which waits somebody was mailed', table: sql`${mailedWait}`, since: sql`at`, forMs: 90 * DAY },
  { what: 'sign-ins that have ended', table: sql`${signIn}`, since: sql`ends_at`, forMs: 0 },
  { what: 'invitations that have run out', table: sql`${invitation}`, since: sql`ends_at`, forMs: 30 * DAY },
  { what: 'browsers that nobody has used', table: sql`${knownDevice}`, since: sql`used_at`, forMs: 180 * DAY },
]

/** So many go at once: whoever works meanwhile waits for no more than that. */
const PIECE = 2_000

/**
 * Takes away what nobody needs any more, piece by piece.
 *
 * @returns how many rows of each kind
 */
export async function sweep(now: Date, piece = PIECE): Promise<Record<string, number>> {
  const swept: Record<string, number> = {}
  for (const { what, table, since, forMs } of KEPT) {
    const before = at(now.getTime() - forMs)
    let gone: number
    do {
      // by where they lie: what is oldest lies first, and so needs no index
      const { rows } = await once<{ gone: number }>(sql`
        with gone as (delete from ${table} where ctid = any(array(select ctid from ${table} where ${since} < ${before} limit ${piece}))
          and ${since} < ${before} returning 1)
        select count(*)::int as gone from gone`)
      gone = rows[0]!.gone
      swept[what] = (swept[what] ?? 0) + gone
    } while (gone === piece)
  }
  const found = Object.fromEntries(Object.entries(swept).filter(([, count]) => count > 0))
  if (Object.keys(found).length > 0) log.info({ swept: found }, 'swept')
  return swept
}
