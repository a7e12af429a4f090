import { desc, eq, sql, type SQL, type SQLWrapper } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import { STARTING_TERMS } from '~~/shared/terms'
import type { SetUpTexting, TermsToRead } from '~~/shared/terms'
import type { SwitchForm, TermsForm } from '~~/shared/schemas/terms'
import { ask, read, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, firm, termsAccepted, termsVersion } from '../db/schema'
import { badInput, conflict, notAllowed } from '../http/problem'
import { announce } from '../live/notices'
import { note } from './audit'
import { colleagues } from './colleagues'
import type { SignedIn } from './sign-in'

/** A question with a row where a colleague has not read the newest terms; with none where there are no terms. */
export const termsUnreadBy = (colleagueId: SQLWrapper): SQL => sql`
  select 1 from (select max(version) as version from ${termsVersion}) newest where newest.version is not null
    and not exists (select 1 from ${termsAccepted} a where a.colleague_id = ${colleagueId} and a.version = newest.version)`

export async function hasUnreadTerms(colleagueId: string): Promise<boolean> {
  const { rows } = await ask(termsUnreadBy(sql`${colleagueId}::uuid`))
  return rows.length > 0
}

const newest = async () =>
  (await read(database => database.select().from(termsVersion).orderBy(desc(termsVersion.version)).limit(1)))[0] ?? null

/** What everybody who texts has to read, and whether the asker has. */
export async function readTerms(asker: SignedIn): Promise<TermsToRead> {
  const terms = await newest()
  return {
    terms: terms && { version: terms.version, words: terms.words, madeAt: terms.madeAt.getTime() },
    unread: await hasUnreadTerms(asker.id),
  }
}

/**
 * Somebody has read them, and keeps to them. What they have accepted is a version: one that has changed meanwhile is to be read first.
 *
 * @throws Problem 409 `terms-changed`
 */
export async function acceptTerms(asker: SignedIn, version: number, now: Date): Promise<TermsToRead> {
  await tx(async (database) => {
    if ((await newest())?.version !== version) throw conflict('terms-changed', 'They have changed', 'The terms have changed meanwhile. Read them as they are now.')
    const made = await database.insert(termsAccepted).values({ version, colleagueId: asker.id, at: now })
      .onConflictDoNothing().returning({ version: termsAccepted.version })
    if (made.length > 0) await note('terms-accepted', asker.id, now, { version })
    announce({ kind: 'terms' }, 'line.answer', [{ ownerId: asker.id }])
  })
  return readTerms(asker)
}

/** Whether everybody may text, what they have to read before, and who has. */
export async function readTexting(asker: SignedIn): Promise<SetUpTexting> {
  mustSwitch(asker)
  const [found] = await read(database => database.select({ on: firm.textingOn }).from(firm))
  const terms = await newest()
  const { rows: readers } = await ask<SetUpTexting['readers'][number] & Record<string, unknown>>(sql`
    select c.id, c.name, a.version, ${milliseconds(sql`a.at`)} as at from ${colleague} c
    left join lateral (select * from ${termsAccepted} t where t.colleague_id = c.id order by t.version desc limit 1) a on true where c.left_at is null order by c.name`)
  const versions = await read(database => database
    .select({ version: termsVersion.version, madeAt: milliseconds(termsVersion.madeAt), by: colleague.name })
    .from(termsVersion).innerJoin(colleague, eq(colleague.id, termsVersion.madeBy)).orderBy(desc(termsVersion.version)))
  return { on: found!.on, version: terms?.version ?? null, words: terms?.words ?? STARTING_TERMS, readers, versions }
}

/**
 * Writes the terms anew: everybody is asked again before their next text. Whoever writes them has read them.
 *
 * @throws Problem 409 `terms-changed` where somebody else has written meanwhile
 */
export async function writeTerms(asker: SignedIn, { words, after }: TermsForm, now: Date): Promise<SetUpTexting> {
  mustSwitch(asker)
  await tx(async (database) => {
    // of two who write at once the second writes the version after
    await database.select({ id: firm.id }).from(firm).for('update')
    const before = await newest()
    if (before?.words === words) return
    if ((before?.version ?? null) !== after)
      throw conflict('terms-changed', 'They have changed', 'Somebody has written another version meanwhile. Yours stays here: read the other below, and save once more to put yours in its place.')
    const version = (before?.version ?? 0) + 1
    await database.insert(termsVersion).values({ version, words, madeBy: asker.id, madeAt: now })
    await database.insert(termsAccepted).values({ version, colleagueId: asker.id, at: now })
    await note('terms-written', asker.id, now, { version, words })
    await tellEverybody()
  })
  return readTexting(asker)
}

/**
 * Switches texting on for everybody, or off. What waits meanwhile is held, and leaves when its writer says so.
 *
 * @throws Problem 422 where there are no terms yet, or the asker has not read them
 */
export async function switchTexting(asker: SignedIn, { on }: SwitchForm, now: Date): Promise<SetUpTexting> {
  mustSwitch(asker)
  await tx(async (database) => {
    if (on && !await newest()) throw badInput({ on: 'Save the terms of use first: whoever texts reads them before.' })
    if (on && await hasUnreadTerms(asker.id)) throw badInput({ on: 'Read the terms of use first, as everybody else does: they stand under “Before you text”.' })
    const changed = await database.update(firm).set({ textingOn: on }).where(sql`${firm.textingOn} <> ${on}`).returning({ id: firm.id })
    if (changed.length > 0) await note('texting-switched', asker.id, now, { on })
  })
  return readTexting(asker)
}

async function tellEverybody(): Promise<void> {
  announce({ kind: 'terms' }, 'line.answer', (await colleagues()).map(({ id }) => ({ ownerId: id })))
}

function mustSwitch(asker: SignedIn): void {
  if (!can(asker, 'texting.switch', {})) throw notAllowed('switch texting on or off; an admin does')
}
