import { and, eq, isNull, lt, or, sql } from 'drizzle-orm'
import type { SecondStep, SecondStepOffer } from '~~/shared/sign-ins'
import { read, tx } from '../db/door'
import { colleague, recoveryCode, secondStep } from '../db/schema'
import { badInput, conflict, notFound } from '../http/problem'
import { canSeal, seal, unseal } from '../sealing/seal'
import { countAttempt, forgetAttempts } from './attempts'
import { note } from './audit'
import { freshRecoveryCode, freshSecret, isRecoveryCode, periodOf, recoveryHash, uriOf } from './one-time'
import { passwordMatches } from './password'
import type { SignedIn } from './sign-in'

const RECOVERY_CODES = 10

/** How I sign in: whether a code is asked for after the password. */
export async function readSecondStep({ id }: SignedIn): Promise<SecondStep> {
  const [found] = await read(database => database
    .select({
      since: secondStep.confirmedAt,
      codesLeft: sql<number>`(select count(*) from ${recoveryCode} r where r.colleague_id = ${secondStep.colleagueId})::int`,
    })
    .from(secondStep).where(eq(secondStep.colleagueId, id)))
  return { since: found?.since?.getTime() ?? null, codesLeft: found?.since ? found.codesLeft : 0, possible: canSeal() }
}

/** Whether a code is asked of somebody after their password. */
export async function hasSecondStep(colleagueId: string): Promise<boolean> {
  const [found] = await read(database => database
    .select({ since: secondStep.confirmedAt }).from(secondStep).where(eq(secondStep.colleagueId, colleagueId)))
  return found?.since != null
}

/**
 * Makes a secret for an app. It counts from when a code of it has been typed; made again before that, it is another one.
 *
 * @throws Problem 409 where there is one that counts, or no key with which it could be kept
 */
export async function offerSecondStep(asker: SignedIn): Promise<SecondStepOffer> {
  if (!canSeal())
    throw conflict('no-key', 'It cannot be kept', 'PLAUDER_SEAL_KEY is not set, so the secret of your app could be read by whoever has the database. Ask whoever runs Plauder.')
  const secret = freshSecret()
  const sealed = seal(secret, asker.id)
  const [made] = await tx(database => database.insert(secondStep).values({ colleagueId: asker.id, secret: sealed })
    .onConflictDoUpdate({ target: secondStep.colleagueId, set: { secret: sealed }, setWhere: isNull(secondStep.confirmedAt) })
    .returning({ colleagueId: secondStep.colleagueId }))
  if (!made) throw conflict('second-step-on', 'There is one', 'A code is asked for already when you sign in. End that first.')
  return { secret, uri: uriOf(secret, asker.mail, 'Plauder') }
}

/**
 * The app shows the right code: from now on one is asked for. Gives the codes that let in without the app, shown this once.
 *
 * @throws Problem 422 for another code
 */
export async function confirmSecondStep(asker: SignedIn, code: string, now: Date): Promise<string[]> {
  return tx(async (database) => {
    const [found] = await database.select().from(secondStep)
      .where(and(eq(secondStep.colleagueId, asker.id), isNull(secondStep.confirmedAt))).for('update')
    if (!found) throw conflict('no-offer', 'It has begun elsewhere', 'This was set up or begun anew in another window. Begin again.')
    const secret = unseal(found.secret, asker.id)
    const period = secret === null ? null : periodOf(secret, code, now)
    if (period === null) throw badInput({ code: 'This is not what the app shows. Look whether it is the entry for Plauder, and whether the telephone’s clock is right.' })
    await database.update(secondStep).set({ confirmedAt: now, lastPeriod: period }).where(eq(secondStep.colleagueId, asker.id))
    await note('second-step-set', asker.id, now)
    return makeRecoveryCodes(asker.id)
  })
}

/** Those that were given out before work no more. @throws Problem 422 for a wrong password */
export async function recoveryCodesAnew(asker: SignedIn, password: string, now: Date): Promise<string[]> {
  await mustKnowPassword(asker, password)
  return tx(async () => {
    if (!await hasSecondStep(asker.id)) throw notFound('second step')
    await note('recovery-codes-made', asker.id, now)
    return makeRecoveryCodes(asker.id)
  })
}

async function makeRecoveryCodes(colleagueId: string): Promise<string[]> {
  const codes = Array.from({ length: RECOVERY_CODES }, freshRecoveryCode)
  await tx(async (database) => {
    await database.delete(recoveryCode).where(eq(recoveryCode.colleagueId, colleagueId))
    await database.insert(recoveryCode).values(codes.map(code => ({ colleagueId, hash: recoveryHash(code, colleagueId) })))
  })
  return codes
}

/** From now on the password is enough. @throws Problem 422 for a wrong password */
export async function endSecondStep(asker: SignedIn, password: string, now: Date): Promise<SecondStep> {
  await mustKnowPassword(asker, password)
  await tx(async () => {
    if (await forgetSecondStep(asker.id)) await note('second-step-ended', asker.id, now)
  })
  return readSecondStep(asker)
}

/** @returns whether there was one that counted */
export async function forgetSecondStep(colleagueId: string): Promise<boolean> {
  return tx(async (database) => {
    await database.delete(recoveryCode).where(eq(recoveryCode.colleagueId, colleagueId))
    const [gone] = await database.delete(secondStep).where(eq(secondStep.colleagueId, colleagueId))
      .returning({ since: secondStep.confirmedAt })
    return gone?.since != null
  })
}

/** Somebody at a browser that was left open does not find it by trying: ten times in a quarter of an hour, as at the door. */
async function mustKnowPassword({ id, mail }: SignedIn, password: string): Promise<void> {
  const attempt = { account: mail, address: '', knownDevice: `password of ${id}` }
  await countAttempt(attempt)
  const [found] = await read(database => database
    .select({ hash: colleague.passwordHash }).from(colleague).where(eq(colleague.id, id)))
  if (!await passwordMatches(found?.hash, password)) throw badInput({ password: 'This is not your password. Capitals count.' })
  await forgetAttempts(attempt)
}

/**
 * After the right password: a code of the app, each once (RFC 6238, 5.2), or one of those that let in without it.
 *
 * @throws Problem 422 at the code, where one is asked for and this is none
 */
export async function mustPassSecondStep(colleagueId: string, code: string, now: Date): Promise<void> {
  const [found] = await read(database => database.select().from(secondStep).where(eq(secondStep.colleagueId, colleagueId)))
  if (!found?.confirmedAt) return
  if (!code) throw badInput({ code: 'Type the code that your app shows now.' })
  if (isRecoveryCode(code)) return useRecoveryCode(colleagueId, code, now)
  const secret = unseal(found.secret, colleagueId)
  if (secret === null) throw badInput({ code: 'What the app was set up with cannot be read here any more. Use a recovery code, or ask an admin.' })
  const period = periodOf(secret, code, now)
  const isFirst = period !== null && (await tx(database => database.update(secondStep).set({ lastPeriod: period })
    .where(and(eq(secondStep.colleagueId, colleagueId), or(isNull(secondStep.lastPeriod), lt(secondStep.lastPeriod, period))))
    .returning({ colleagueId: secondStep.colleagueId }))).length > 0
  if (isFirst) return
  await note('sign-in-refused', colleagueId, now, { code: period === null ? 'wrong' : 'used' })
  throw badInput({ code: period === null ? 'This is not the code that the app shows now. Wait for the next one.' : 'This code was used already. Wait for the next one.' })
}

async function useRecoveryCode(colleagueId: string, typed: string, now: Date): Promise<void> {
  const used = await tx(database => database.delete(recoveryCode)
    .where(and(eq(recoveryCode.colleagueId, colleagueId), eq(recoveryCode.hash, recoveryHash(typed, colleagueId)))).returning())
  if (used.length > 0) return note('recovery-code-used', colleagueId, now)
  await note('sign-in-refused', colleagueId, now, { code: 'recovery' })
  throw badInput({ code: 'This recovery code is none of yours, or was used already.' })
}
