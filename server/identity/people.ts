import { and, asc, count, eq, inArray, isNotNull, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { LinkMade, SetUpPeople } from '~~/shared/people'
import { can } from '~~/shared/permissions'
import type { ColleagueForm, InviteForm } from '~~/shared/schemas/people'
import { read, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, invitation, line, personRight, secondStep, signIn, team, teamMember } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import { settings } from '../settings'
import { note } from './audit'
import { asHelper, untilNoted } from './helpers'
import { forgetSecondStep } from './second-step'
import { endAllOf, freshToken, tellOfChange, tokenHash, type SignedIn } from './sign-in'

/** So long a link works. */
const LINK_MS = 7 * 86_400_000

/** Who works here, in which teams, and who was given a link. */
export async function listPeople(asker: SignedIn): Promise<SetUpPeople> {
  mustEdit(asker)
  return tx(async (database) => {
    const members = await database.select().from(teamMember)
    const colleagues = await database
      .select({
        id: colleague.id, name: colleague.name, mail: colleague.mail, role: colleague.role, title: colleague.title,
        helpsUntil: milliseconds(colleague.helpsUntil),
        leftAt: milliseconds(colleague.leftAt),
        secondStep: sql<boolean>`exists (select 1 from ${secondStep} s where s.colleague_id = colleague.id and s.confirmed_at is not null)`,
        here: sql<number | null>`(select ${milliseconds(sql`max(s.made_at)`)} from ${signIn} s where s.colleague_id = colleague.id and s.ends_at > now())`,
      })
      .from(colleague)
      .orderBy(sql`${colleague.name} collate "und-x-icu"`)
    const teams = await database.select().from(team).orderBy(asc(team.name))
    const lines = await database.select({ teamId: line.teamId, lines: count() }).from(line).groupBy(line.teamId)
    const invited = await database.select().from(invitation).orderBy(asc(invitation.madeAt))
    return {
      colleagues: colleagues.map(one =>
        ({ ...one, teamIds: members.filter(({ colleagueId }) => colleagueId === one.id).map(({ teamId }) => teamId) })),
      teams: teams.map(one => ({
        ...one,
        people: members.filter(({ teamId }) => teamId === one.id).length,
        lines: lines.find(({ teamId }) => teamId === one.id)?.lines ?? 0,
      })),
      invited: invited.map(({ id, name, mail, role, title, teamIds, helpsUntil, endsAt, colleagueId }) => ({
        id, name, mail, role, title, teamIds,
        helpsUntil: helpsUntil?.getTime() ?? null,
        endsAt: endsAt.getTime(),
        newPassword: colleagueId !== null,
      })),
    }
  })
}

/** Makes a link by which somebody joins. It is shown this once; asked for again, it is another one. */
export async function invite(asker: SignedIn, { id, ...typed }: InviteForm, now: Date): Promise<LinkMade> {
  mustEdit(asker)
  const form = asHelper(asker, typed, now)
  return tx(async (database) => {
    await mustBeFree(form.mail)
    await mustBeTeams(form.teamIds)
    const [other] = await database.select({ id: invitation.id }).from(invitation)
      .where(sql`${invitation.mail} = ${form.mail} and ${invitation.id} <> ${id}::uuid and ${invitation.endsAt} > ${now.toISOString()}::timestamptz`)
    if (other) throw badInput({ mail: 'This address was given a link already. Make that one anew, or withdraw it.' })
    await note('invited', asker.id, now, { invitationId: id, mail: form.mail, role: form.role, teamIds: form.teamIds, ...untilNoted(form) })
    return makeLink(asker, { id, ...form, colleagueId: null }, now)
  })
}

/** The link that was given out before works no more. */
export async function linkAnew(asker: SignedIn, id: string, now: Date): Promise<LinkMade> {
  mustEdit(asker)
  return tx(async (database) => {
    const [found] = await database.select().from(invitation).where(eq(invitation.id, id)).for('update')
    if (!found) throw notFound('invitation')
    await note('invited-again', asker.id, now, { invitationId: id, mail: found.mail })
    return makeLink(asker, found, now)
  })
}

/** A link by which a colleague chooses a new password. Until it is used the old one holds. */
export async function linkForPassword(asker: SignedIn, colleagueId: string, now: Date): Promise<LinkMade> {
  mustEdit(asker)
  return tx(async (database) => {
    const [found] = await database.select().from(colleague).where(eq(colleague.id, colleagueId))
    if (!found || found.leftAt) throw notFound('colleague')
    const { name, mail, role, title, helpsUntil } = found
    const [open] = await database.select({ id: invitation.id }).from(invitation).where(eq(invitation.colleagueId, colleagueId))
    await note('new-password-offered', asker.id, now, { colleagueId })
    return makeLink(asker, { id: open?.id ?? uuid(), name, mail, role, title, helpsUntil, teamIds: [], colleagueId }, now)
  })
}

export async function withdraw(asker: SignedIn, id: string, now: Date): Promise<SetUpPeople> {
  mustEdit(asker)
  return tx(async (database) => {
    const [gone] = await database.delete(invitation).where(eq(invitation.id, id)).returning({ mail: invitation.mail })
    if (gone) await note('invitation-withdrawn', asker.id, now, { invitationId: id, mail: gone.mail })
    return listPeople(asker)
  })
}

type Wanted = Omit<typeof invitation.$inferInsert, 'keyHash' | 'madeBy' | 'madeAt' | 'endsAt'>

async function makeLink(asker: SignedIn, wanted: Wanted, now: Date): Promise<LinkMade> {
  const { id, name, mail, role, title, helpsUntil = null, teamIds, colleagueId } = wanted
  const key = freshToken()
  const endsAt = new Date(now.getTime() + LINK_MS)
  const whom = { name, mail, role, title, helpsUntil, teamIds, colleagueId }
  const values = { ...whom, keyHash: tokenHash(key), madeBy: asker.id, madeAt: now, endsAt }
  await tx(database => database.insert(invitation).values({ id, ...values }).onConflictDoUpdate({ target: invitation.id, set: values }))
  // behind the # it gets into no log of a proxy
  return { people: await listPeople(asker), link: `${settings().PLAUDER_HOME.replace(/\/$/, '')}/join#${key}`, endsAt: endsAt.getTime() }
}

/** What somebody may do, and sees, changes with their next click. */
export async function changeColleague(asker: SignedIn, id: string, typed: ColleagueForm, now: Date): Promise<SetUpPeople> {
  mustEdit(asker)
  const { teamIds, ...form } = asHelper(asker, typed, now)
  return tx(async (database) => {
    await lockAdmins()
    const [before] = await database.select().from(colleague).where(eq(colleague.id, id))
    if (!before || before.leftAt) throw notFound('colleague')
    if (before.role === 'admin' && form.role !== 'admin') await mustNotBeTheLast(id)
    if (form.role === 'helper' && before.role !== 'helper')
      throw badInput({ role: 'Whoever works here has records, lines and tasks. Invite a helper from outside with an address of their own.' })
    if (form.mail !== before.mail) await mustBeFree(form.mail)
    await mustBeTeams(teamIds)
    const was = await database.select({ teamId: teamMember.teamId }).from(teamMember).where(eq(teamMember.colleagueId, id))
    await database.update(colleague).set({ ...form, firstName: firstOf(form.name) }).where(eq(colleague.id, id))
    await database.delete(teamMember).where(eq(teamMember.colleagueId, id))
    if (teamIds.length > 0) await database.insert(teamMember).values(teamIds.map(teamId => ({ teamId, colleagueId: id })))
    // what was said of them was said of what they were
    if (form.role !== before.role) await database.delete(personRight).where(eq(personRight.colleagueId, id))
    const { name, mail, role, title } = before
    await note('colleague-changed', asker.id, now, { colleagueId: id, from: { name, mail, role, title, teamIds: was.map(({ teamId }) => teamId), ...untilNoted(before) }, to: { ...form, teamIds, ...untilNoted(form) } })
    await tellOfChange(id)
    return listPeople(asker)
  })
}

export async function makeTeam(asker: SignedIn, { id, name }: { id: string, name: string }, now: Date): Promise<SetUpPeople> {
  mustEdit(asker)
  return tx(async (database) => {
    await mustBeUnused(name, id)
    const made = await database.insert(team).values({ id, name }).onConflictDoNothing().returning({ id: team.id })
    if (made.length > 0) await note('team-made', asker.id, now, { teamId: id, name })
    return listPeople(asker)
  })
}

export async function renameTeam(asker: SignedIn, id: string, name: string, now: Date): Promise<SetUpPeople> {
  mustEdit(asker)
  return tx(async (database) => {
    await mustBeUnused(name, id)
    const [before] = await database.select({ name: team.name }).from(team).where(eq(team.id, id))
    if (!before) throw notFound('team')
    await database.update(team).set({ name }).where(eq(team.id, id))
    await note('team-renamed', asker.id, now, { teamId: id, from: before.name, to: name })
    return listPeople(asker)
  })
}

/** By which they are greeted and signed for. */
export const firstOf = (name: string): string => name.split(' ')[0]!

async function mustBeUnused(name: string, id: string): Promise<void> {
  const same = await read(database => database.select({ id: team.id }).from(team).where(eq(team.name, name)))
  if (same.some(one => one.id !== id)) throw badInput({ name: 'Another team is called so.' })
}

async function mustBeFree(mail: string): Promise<void> {
  const [taken] = await read(database =>
    database.select({ name: colleague.name, leftAt: colleague.leftAt }).from(colleague).where(eq(colleague.mail, mail)))
  if (taken?.leftAt) throw badInput({ mail: `${taken.name} has left and had this address. Take them on again instead.` })
  if (taken) throw badInput({ mail: `${taken.name} signs in with this address.` })
}

async function mustBeTeams(ids: string[]): Promise<void> {
  const found = await read(database => database.select({ id: team.id }).from(team).where(inArray(team.id, ids)))
  if (found.length < new Set(ids).size) throw badInput({ teamIds: 'One of these teams is not there any more. Reload the page.' })
}

/** Whoever changes admins waits for whoever does too: together they could leave none. */
export async function lockAdmins(): Promise<void> {
  await tx(database => database.select({ id: colleague.id }).from(colleague).where(eq(colleague.role, 'admin')).for('update'))
}

/** Somebody works here no more: they are in no team, nobody's stand-in, signed in nowhere, and no link lets them in. */
export async function endWork(id: string, now: Date): Promise<void> {
  await tx(async (database) => {
    // whoever comes back chooses another password
    await database.update(colleague).set({ leftAt: now, passwordHash: '' }).where(eq(colleague.id, id))
    await database.update(colleague).set({ standInId: null }).where(eq(colleague.standInId, id))
    await database.delete(teamMember).where(eq(teamMember.colleagueId, id))
    await database.delete(personRight).where(eq(personRight.colleagueId, id))
    await database.delete(invitation).where(eq(invitation.colleagueId, id))
    await forgetSecondStep(id)
    await endAllOf(id)
  })
}

/** Whoever has lost the telephone and every recovery code signs in with the password alone, and can begin anew. */
export async function takeSecondStepAway(asker: SignedIn, colleagueId: string, now: Date): Promise<SetUpPeople> {
  mustEdit(asker)
  return tx(async () => {
    if (await forgetSecondStep(colleagueId)) await note('second-step-taken-away', asker.id, now, { colleagueId })
    return listPeople(asker)
  })
}

/**
 * Somebody comes back, as what they were: into no team yet, and with a link by which they choose a new password.
 *
 * @throws Problem 404 for one who has not left
 */
export async function takeOnAgain(asker: SignedIn, id: string, now: Date): Promise<LinkMade> {
  mustEdit(asker)
  return tx(async (database) => {
    const [back] = await database.update(colleague).set({ leftAt: null })
      .where(and(eq(colleague.id, id), isNotNull(colleague.leftAt))).returning({ name: colleague.name })
    if (!back) throw notFound('colleague')
    // whoever helped before helps as long as a link works, until an admin says another day
    await database.update(colleague).set({ helpsUntil: new Date(now.getTime() + LINK_MS) }).where(and(eq(colleague.id, id), eq(colleague.role, 'helper')))
    await note('colleague-back', asker.id, now, { colleagueId: id, name: back.name })
    return linkForPassword(asker, id, now)
  })
}

export async function mustNotBeTheLast(id: string): Promise<void> {
  const others = await read(database => database.select({ id: colleague.id }).from(colleague).where(sql`${colleague.role} = 'admin' and ${colleague.leftAt} is null and ${colleague.id} <> ${id}::uuid`))
  if (others.length === 0) throw conflict('last-admin', 'Nobody would be left', 'This is the only admin: nobody could set anything up any more. Make somebody else an admin first.')
}

function mustEdit(asker: SignedIn): void {
  if (!can(asker, 'people.edit', {})) throw notAllowed('see who works here and as what; an admin does')
}
