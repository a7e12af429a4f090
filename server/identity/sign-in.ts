import { createHash, randomBytes } from 'node:crypto'
import { and, desc, eq, gt, ne, sql, type SQL } from 'drizzle-orm'
import type { Asker, Role } from '~~/shared/permissions'
import type { SignInForm } from '~~/shared/schemas/sign-in'
import type { OwnSignIn } from '~~/shared/sign-ins'
import { afterCommit, read, tx } from '../db/door'
import { milliseconds, uuidArray } from '../db/instants'
import { colleague, signIn } from '../db/schema'
import { badInput, notFound } from '../http/problem'
import { say } from '../live/between'
import { countAttempt, forgetAttempts } from './attempts'
import { note } from './audit'
import { browserNamed, isKnownFor, rememberDevice } from './devices'
import { passwordMatches } from './password'
import { mustPassSecondStep } from './second-step'

/** Who asks, with what the rules and the greeting need. */
export interface SignedIn extends Asker {
  name: string
  firstName: string
  mail: string
  title: string
  directLine: string | null
  zone: string
  /** Until when somebody from outside helps (instant); left out for all others. */
  helpsUntil?: number
  /** Of this one sign-in; left out for work that goes on without anybody there. */
  signInId?: string
}

/** From where somebody signs in. */
export interface From {
  address: string
  /** What the browser says it is. */
  userAgent?: string
  /** The token by which the browser is known, if it has one. */
  device?: string
}

/** For the two cookies of a browser; of both only hashes are kept here. */
export interface Tokens { signIn: string, device: string }

const LASTS = 12 * 3_600_000

export const tokenHash = (token: string) => createHash('sha256').update(token).digest('base64url')
export const freshToken = () => randomBytes(32).toString('base64url')

/**
 * Checks a password, and a code where one is asked for, and opens a new sign-in.
 *
 * @throws Problem 422 for a wrong pair, or at the code; 429 after too many
 */
export async function openSignIn({ mail, password, code }: SignInForm, from: From, now: Date): Promise<Tokens> {
  const { address, device } = from
  const account = mail.trim().toLowerCase()
  const deviceHash = device ? tokenHash(device) : null
  const attempt = { account, address, knownDevice: deviceHash && await isKnownFor(deviceHash, account) ? deviceHash : null }
  await countAttempt(attempt)
  const [found] = await read(database => database.select().from(colleague).where(eq(colleague.mail, account)))
  // outside of tx: hashing takes long, and nobody else should wait for it
  if (!await passwordMatches(found?.passwordHash, password) || found?.leftAt) {
    await note('sign-in-refused', null, now, { address })
    throw badInput({ password: 'This pair of address and password is not known. Check both; capitals count in the password.' })
  }
  if (found!.helpsUntil && found!.helpsUntil <= now)
    throw badInput({ password: 'The time for which you were let in to help is over. Ask whoever let you in.' })
  await mustPassSecondStep(found!.id, code, now)
  await forgetAttempts(attempt)
  return signInAs(found!.id, from, now)
}

/** Opens a sign-in for somebody who has proved who they are. */
export async function signInAs(colleagueId: string, { address, userAgent = '', device }: From, now: Date): Promise<Tokens> {
  const tokens = { signIn: freshToken(), device: device ?? freshToken() }
  await tx(async (database) => {
    const [who] = await database.select({ helpsUntil: colleague.helpsUntil }).from(colleague).where(eq(colleague.id, colleagueId))
    await database
      .insert(signIn)
      .values({
        tokenHash: tokenHash(tokens.signIn),
        colleagueId,
        madeAt: now,
        endsAt: new Date(Math.min(now.getTime() + LASTS, who?.helpsUntil?.getTime() ?? Infinity)),
        device: browserNamed(userAgent),
        address,
      })
    await rememberDevice(tokenHash(tokens.device), colleagueId, now)
    await note('signed-in', colleagueId, now, { address })
  })
  return tokens
}

export async function endSignIn(token: string | undefined, now: Date): Promise<void> {
  if (!token) return
  await tx(async (database) => {
    const [ended] = await database.delete(signIn).where(eq(signIn.tokenHash, tokenHash(token))).returning()
    if (!ended) return
    await note('signed-out', ended.colleagueId, now)
    tellEnded([ended.id])
  })
}

/** Where I am signed in, this one first. */
export async function mySignIns(asker: SignedIn, now: Date): Promise<OwnSignIn[]> {
  const rows = await read(database =>
    database
      .select({
        id: signIn.id,
        device: signIn.device,
        address: signIn.address,
        madeAt: milliseconds(signIn.madeAt),
        endsAt: milliseconds(signIn.endsAt),
      })
      .from(signIn)
      .where(and(eq(signIn.colleagueId, asker.id), gt(signIn.endsAt, now)))
      .orderBy(sql`${signIn.id} <> ${asker.signInId ?? null}::uuid`, desc(signIn.madeAt))
      .limit(100),
  )
  return rows.map(row => ({ ...row, here: row.id === asker.signInId }))
}

/**
 * Ends one of my sign-ins, or all but this one.
 *
 * @throws Problem 404 for one that is not mine or over
 */
export async function endMine(asker: SignedIn, which: string | 'all-others', now: Date): Promise<OwnSignIn[]> {
  return tx(async (database) => {
    const ended = await database
      .delete(signIn)
      .where(and(eq(signIn.colleagueId, asker.id), which === 'all-others' ? ne(signIn.id, asker.signInId!) : eq(signIn.id, which)))
      .returning({ id: signIn.id })
    if (ended.length === 0 && which !== 'all-others') throw notFound('sign-in')
    if (ended.length > 0)
      await note(which === 'all-others' ? 'signed-out-everywhere-else' : 'signed-out-elsewhere', asker.id, now, { signIns: ended.length })
    tellEnded(ended.map(({ id }) => id))
    return mySignIns(asker, now)
  })
}

/** Ends wherever somebody is signed in; inside of the transaction for which it is done. */
export async function endAllOf(colleagueId: string): Promise<void> {
  const ended = await tx(database => database.delete(signIn).where(eq(signIn.colleagueId, colleagueId)).returning({ id: signIn.id }))
  tellEnded(ended.map(({ id }) => id))
}

/** What somebody may see has changed: their browsers listen anew, with the rights of now. */
export async function tellOfChange(colleagueId: string): Promise<void> {
  const held = await tx(database => database.select({ id: signIn.id }).from(signIn).where(eq(signIn.colleagueId, colleagueId)))
  tellEnded(held.map(({ id }) => id))
}

/** What of them is open in whatever process is closed: nobody hears anything more. */
function tellEnded(ids: string[]): void {
  afterCommit(() => ids.forEach(id => say('sign-out', { signInId: id })))
}

/** Who holds this token, asked anew at each request; null if nobody does any more. */
export async function whoSignedIn(token: string | undefined, now: Date): Promise<SignedIn | null> {
  if (!token) return null
  const [found] = await who(sql`s.id as sign_in_id`, sql`from sign_in s join colleague c on c.id = s.colleague_id
    where s.token_hash = ${tokenHash(token)} and s.ends_at > ${now.toISOString()} and c.left_at is null
      and (c.helps_until is null or c.helps_until > ${now.toISOString()})`)
  return found ?? null
}

/** A colleague for whom work goes on that was begun before, with the rights of now. */
export async function colleagueAtWork(id: string): Promise<SignedIn | null> {
  const [found] = await who(NO_SIGN_IN, sql`from colleague c where c.id = ${id}::uuid and c.left_at is null`)
  return found ?? null
}

/** The same of all colleagues, by name. */
export const everybodyAtWork = (): Promise<SignedIn[]> => who(NO_SIGN_IN, sql`from colleague c where c.left_at is null order by c.name, c.id`)

/** Of these, the sign-ins that hold on. */
export async function stillSignedIn(ids: string[], now: Date): Promise<Set<string>> {
  const rows = await read(database =>
    database
      .select({ id: signIn.id })
      .from(signIn)
      .where(and(sql`${signIn.id} = any(${uuidArray(ids)})`, gt(signIn.endsAt, now))),
  )
  return new Set(rows.map(({ id }) => id))
}

const NO_SIGN_IN = sql`null::uuid as sign_in_id`

async function who(signInId: SQL, from: SQL): Promise<SignedIn[]> {
  const { rows } = await read(database => database.execute<Row>(sql`
    select c.id, c.name, c.first_name, c.mail, c.role, c.title, c.direct_line, c.zone, ${signInId}, ${milliseconds(sql`c.helps_until`)} as helps_until,
      array(select team_id from team_member where colleague_id = c.id) as team_ids,
      array(select distinct b.colleague_id from team_member a join team_member b using (team_id) where a.colleague_id = c.id) as people_ids,
      (select jsonb_object_agg(g.permission, g.scope) from right_change g where g.role = c.role) as role_rights,
      (select jsonb_object_agg(g.permission, g.scope) from person_right g where g.colleague_id = c.id) as own_rights
    ${from}`))
  return rows.map(row => ({
    id: row.id,
    name: row.name,
    firstName: row.first_name,
    mail: row.mail,
    role: row.role,
    title: row.title,
    directLine: row.direct_line,
    zone: row.zone,
    teamIds: row.team_ids,
    peopleIds: row.people_ids,
    // what was said of this one comes before what was said of all in the role
    ...((row.role_rights || row.own_rights) && { rights: { ...row.role_rights, ...row.own_rights } }),
    ...(row.helps_until && { helpsUntil: row.helps_until }),
    ...(row.sign_in_id && { signInId: row.sign_in_id }),
  }))
}

type Row = Record<string, unknown> & {
  id: string
  name: string
  first_name: string
  mail: string
  role: Role
  title: string
  direct_line: string | null
  zone: string
  sign_in_id: string | null
  team_ids: string[]
  people_ids: string[]
  helps_until: number | null
  role_rights: Asker['rights'] | null
  own_rights: Asker['rights'] | null
}
