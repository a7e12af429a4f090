import { createHash, randomBytes } from 'node:crypto'
import { eq, sql, type SQL } from 'drizzle-orm'
import type { Asker, Role } from '~~/shared/permissions'
import { tx } from '../db/door'
import { colleague, signIn } from '../db/schema'
import { countAttempt, forgetAttempts } from './attempts'
import { note } from './audit'
import { badInput } from '../http/problem'
import { passwordMatches } from './password'

/** Who asks, with what the rules and the greeting need. */
export interface SignedIn extends Asker {
  name: string
  firstName: string
  email: string
  title: string
  directLine: string | null
  zone: string
}

const LASTS = 12 * 3_600_000

const tokenHash = (token: string) => createHash('sha256').update(token).digest('base64url')

/**
 * Checks a password and opens a new sign-in.
 *
 * @returns the token for the cookie; only its hash is kept
 * @throws Problem 422 for a wrong pair, 429 after too many
 */
export async function openSignIn(email: string, password: string, address: string, now: Date): Promise<string> {
  const account = email.trim().toLowerCase()
  await countAttempt(account, address)
  const [found] = await tx(database => database.select().from(colleague).where(eq(colleague.email, account)))
  // outside of tx: hashing takes long, and nobody else should wait for it
  if (!await passwordMatches(found?.passwordHash, password)) {
    await note('sign-in refused', null, now, { address })
    throw badInput({ password: 'This pair of address and password is not known. Check both; capitals count in the password.' })
  }
  await forgetAttempts(account, address)
  const token = randomBytes(32).toString('base64url')
  await tx(async (database) => {
    await database.insert(signIn).values({ tokenHash: tokenHash(token), colleagueId: found!.id, madeAt: now, endsAt: new Date(now.getTime() + LASTS) })
    await note('signed in', found!.id, now, { address })
  })
  return token
}

export async function endSignIn(token: string | undefined, now: Date): Promise<void> {
  if (!token) return
  await tx(async (database) => {
    const [ended] = await database.delete(signIn).where(eq(signIn.tokenHash, tokenHash(token))).returning()
    if (ended) await note('signed out', ended.colleagueId, now)
  })
}

/** Who holds this token, asked anew at each request; null if nobody does any more. */
export async function whoSignedIn(token: string | undefined, now: Date): Promise<SignedIn | null> {
  if (!token) return null
  return who(sql`from sign_in s join colleague c on c.id = s.colleague_id where s.token_hash = ${tokenHash(token)} and s.ends_at > ${now.toISOString()}`)
}

/** A colleague for whom work goes on that was begun before, with the rights of now. */
export async function colleagueAtWork(id: string): Promise<SignedIn | null> {
  return who(sql`from colleague c where c.id = ${id}::uuid`)
}

async function who(from: SQL): Promise<SignedIn | null> {
  const { rows: [row] } = await tx(database => database.execute<Row>(sql`
    select c.id, c.name, c.first_name, c.email, c.role, c.title, c.direct_line, c.zone,
      array(select team_id from team_member where colleague_id = c.id) as team_ids,
      array(select distinct b.colleague_id from team_member a join team_member b using (team_id) where a.colleague_id = c.id) as people_ids
    ${from}`))
  return row
    ? { id: row.id, name: row.name, firstName: row.first_name, email: row.email, role: row.role, title: row.title, directLine: row.direct_line, zone: row.zone, teamIds: row.team_ids, peopleIds: row.people_ids }
    : null
}

type Row = Record<string, unknown> & {
  id: string
  name: string
  first_name: string
  email: string
  role: Role
  title: string
  direct_line: string | null
  zone: string
  team_ids: string[]
  people_ids: string[]
}
