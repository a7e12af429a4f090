import { and, eq, gt } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { zoneRules } from '~~/core/hours/zones'
import type { Invitation } from '~~/shared/people'
import type { JoinForm } from '~~/shared/schemas/people'
import { read, tx } from '../db/door'
import { isDuplicate } from '../db/failures'
import { colleague, invitation, team, teamMember } from '../db/schema'
import { badInput, conflict, Problem } from '../http/problem'
import { note } from './audit'
import { firmName } from './firm'
import { hashPassword } from './password'
import { firstOf } from './people'
import { hasSecondStep } from './second-step'
import { endAllOf, signInAs, tokenHash, type From, type Tokens } from './sign-in'

/**
 * What a link says of whoever holds it.
 *
 * @throws Problem 403 for one that does not work, or no more
 */
export async function readInvitation(key: string, now: Date): Promise<Invitation> {
  const { name, mail, colleagueId } = await mustHold(key, now)
  return { firm: await firmName(), name, mail, newPassword: colleagueId !== null }
}

/**
 * Somebody joins by a link, or chooses a new password by one, and is signed in. A new password ends wherever they were signed in.
 *
 * @returns null for somebody of whom a code is asked too: a link is not enough to be let in
 * @throws Problem 403 for a link that does not work, 422 at the field
 */
export async function join({ key, name, zone, password }: JoinForm, from: From, now: Date): Promise<Tokens | null> {
  await mustHold(key, now)
  if (!zoneRules(zone)) throw badInput({ zone: `“${zone}” is not a time zone. Write one such as America/Denver.` })
  // outside of the transaction: a hash keeps nobody waiting
  const passwordHash = await hashPassword(password)
  const colleagueId = await tx(async (database) => {
    // it works once, also for two who open it in one moment
    const [link] = await database.delete(invitation).where(eq(invitation.keyHash, tokenHash(key))).returning()
    if (!link) throw doesNotWork()
    if (link.colleagueId) {
      await database.update(colleague).set({ passwordHash }).where(eq(colleague.id, link.colleagueId))
      await endAllOf(link.colleagueId)
      await note('password-changed', link.colleagueId, now, { by: 'link' })
      return link.colleagueId
    }
    const id = uuid()
    const { mail, role, title, helpsUntil } = link
    await database.insert(colleague)
      .values({ id, name, firstName: firstOf(name), mail, passwordHash, role, title, helpsUntil, zone, seesFrom: now })
    const teams = await database.select({ id: team.id }).from(team)
    const teamIds = link.teamIds.filter(teamId => teams.some(one => one.id === teamId))
    if (teamIds.length > 0) await database.insert(teamMember).values(teamIds.map(teamId => ({ teamId, colleagueId: id })))
    await note('joined', id, now, { invitationId: link.id, mail, role })
    return id
  }).catch((error) => {
    if (isDuplicate(error, 'colleague_mail_unique')) throw conflict('mail-taken', 'There already', 'Somebody signs in with this address already. Sign in, or ask for another link.')
    throw error
  })
  return await hasSecondStep(colleagueId) ? null : signInAs(colleagueId, from, now)
}

async function mustHold(key: string, now: Date): Promise<typeof invitation.$inferSelect> {
  const [found] = await read(database => database.select().from(invitation)
    .where(and(eq(invitation.keyHash, tokenHash(key)), gt(invitation.endsAt, now))))
  if (!found) throw doesNotWork()
  return found
}

const doesNotWork = () => new Problem(
  403,
  'link-used',
  'This link does not work',
  'It was used already, has run out, or another one was made in its place. Ask whoever gave it to you for a new one.',
)
