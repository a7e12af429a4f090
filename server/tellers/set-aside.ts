import { createHash } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { ValidationError } from 'yup'
import { sqlStateOf } from '../db/failures'
import { tx } from '../db/door'
import { setAsideEvent } from '../db/schema'
import { namedFailure } from '../log/failure'
import { log } from '../log/log'
import type { Teller } from './tellers'

/** PostgreSQL's classes of errors that lie in the values: data that no column takes, rows that may not stand there. */
const IN_THE_VALUES = /^(22|23)/

/** What is kept of a thing that was told; more of it says no more about what is wrong. */
const MOST_KEPT = 65_536

/**
 * Takes what was told. What nobody can read or take is set aside for an admin, once, so that all that was told after
 * it is taken.
 *
 * @returns what became of it; `again` where it has to be told again later
 * @throws what stands in the way of everything, such as a database that is away
 */
export async function takeOrSetAside(teller: Teller, told: unknown, now: Date): Promise<'taken' | 'set-aside' | 'again'> {
  try {
    return await teller.take(told, now) ? 'taken' : 'again'
  }
  catch (error) {
    if (!liesInIt(error)) throw error
    await setAside(teller.name, told, error, now)
    return 'set-aside'
  }
}

function liesInIt(error: unknown): boolean {
  const state = sqlStateOf(error)
  return state ? IN_THE_VALUES.test(state) : error instanceof ValidationError || error instanceof TypeError || error instanceof RangeError
}

async function setAside(teller: string, told: unknown, error: unknown, now: Date): Promise<void> {
  const words = (JSON.stringify(told) ?? '').slice(0, MOST_KEPT)
  const why
    = error instanceof ValidationError
      ? `It is not what we expect: ${error.errors.join('; ')}`.slice(0, 500)
      : `It could not be taken: ${namedFailure(error)}`
  const [kept] = await tx(database =>
    database
      .insert(setAsideEvent)
      .values({
        id: uuid(),
        teller,
        hash: createHash('sha256').update(words).digest('base64url'),
        told: words,
        why: why.replaceAll('\0', '\uFFFD'),
        at: now,
      })
      .onConflictDoNothing()
      .returning({ id: setAsideEvent.id }),
  )
  if (kept) log.error({ err: error, teller, setAside: kept.id }, 'an event could not be taken and is set aside')
}

/** Written down where an admin looks: nobody can bring it back, but nobody should find out by themselves. */
export async function sayWhatIsMissing(missingBytes: number, now: Date): Promise<void> {
  log.error({ bytes: missingBytes }, 'the end of the database’s log is missing: what was written last is lost')
  const told = JSON.stringify({ missingBytes })
  await tx(database =>
    database.insert(setAsideEvent).values({
      id: uuid(),
      teller: 'the database',
      hash: createHash('sha256').update(`${told} ${now.getTime()}`).digest('base64url'),
      told,
      at: now,
      why: 'After the last stop the end of the database’s log could not be read, so what was written last is lost. Its files are damaged: have the disk looked at, and compare with the last backup.',
    }),
  )
}
