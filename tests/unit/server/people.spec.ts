import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { colleague, invitation, signIn } from '~~/server/db/schema'
import { join, readInvitation } from '~~/server/identity/join'
import { changeColleague, invite, linkAnew, linkForPassword, listPeople, makeTeam, renameTeam, withdraw } from '~~/server/identity/people'
import { openSignIn, signInAs, whoSignedIn } from '~~/server/identity/sign-in'
import { linesOf } from '~~/server/texting/lines'
import { inviteForm } from '~~/shared/schemas/people'
import { useDatabase } from '../../support/database'
import { later, makeFirm, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

const NOW = new Date()
const FROM = { address: '192.0.2.7' }
const WEEK = 7 * 86_400_000
const PASSWORD = 'four words of my own'
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })

const invited = (more: object = {}) => inviteForm.validateSync({
  id: uuid(), name: 'Tove Åström', mail: 'Tove@Post.example ', role: 'rep', title: 'Sales', teamIds: [firm.portland.teamId], ...more,
})
const keyIn = ({ link }: { link: string }) => link.slice(link.indexOf('#') + 1)
const joining = (key: string, more: object = {}) => ({ key, name: 'Tove Åström', zone: 'Europe/London', password: PASSWORD, ...more })

describe('an invitation', () => {
  it('brings somebody in once, as what and into the teams that were said', async () => {
    const made = await invite(firm.rafe, invited(), NOW)
    expect(made.link).toMatch(/\/join#.{40,}$/)
    expect(await readInvitation(keyIn(made), NOW)).toMatchObject({ name: 'Tove Åström', mail: 'tove@post.example', newPassword: false })
    const both = await Promise.allSettled([join(joining(keyIn(made)), FROM, NOW), join(joining(keyIn(made)), FROM, NOW)])
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    const tokens = (both.find(({ status }) => status === 'fulfilled') as PromiseFulfilledResult<{ signIn: string }>).value
    const tove = (await whoSignedIn(tokens.signIn, NOW))!
    expect(tove).toMatchObject({ name: 'Tove Åström', firstName: 'Tove', role: 'rep', teamIds: [firm.portland.teamId], zone: 'Europe/London' })
    expect((await linesOf(tove)).map(({ name }) => name)).toContain('Portland line')
    await expect(readInvitation(keyIn(made), NOW)).rejects.toMatchObject(problem(403, { type: 'link-used' }))
    expect((await listPeople(firm.rafe)).invited).toEqual([])
    await openSignIn({ mail: 'tove@post.example', password: PASSWORD, code: '' }, FROM, NOW)
  })

  it('works for a week, until it is withdrawn, or until another is made in its place', async () => {
    const form = invited({ mail: 'sunniva@post.example', name: 'Sunniva Holt' })
    const first = await invite(firm.rafe, form, NOW)
    const second = await linkAnew(firm.rafe, form.id, NOW)
    await expect(readInvitation(keyIn(first), NOW)).rejects.toMatchObject(problem(403))
    await expect(readInvitation(keyIn(second), later(NOW, WEEK + 1))).rejects.toMatchObject(problem(403))
    await expect(join(joining(keyIn(second)), FROM, later(NOW, WEEK + 1))).rejects.toMatchObject(problem(403))
    expect((await withdraw(firm.rafe, form.id, NOW)).invited).toEqual([])
    await expect(join(joining(keyIn(second)), FROM, NOW)).rejects.toMatchObject(problem(403))
  })

  it('is refused at the field where it cannot be', async () => {
    await expect(invite(firm.rafe, invited({ mail: firm.ada.mail }), NOW))
      .rejects.toMatchObject(problem(422, { fields: { mail: expect.stringContaining(firm.ada.name) } }))
    const form = invited({ mail: 'twice@post.example' })
    const made = await invite(firm.rafe, form, NOW)
    await expect(invite(firm.rafe, { ...form, id: uuid() }, NOW))
      .rejects.toMatchObject(problem(422, { fields: { mail: expect.any(String) } }))
    await expect(join(joining(keyIn(made), { zone: 'Mars/Base' }), FROM, NOW))
      .rejects.toMatchObject(problem(422, { fields: { zone: expect.any(String) } }))
    expect(() => inviteForm.validateSync({ ...form, role: 'owner' })).toThrow()
    // what was refused used nothing up
    expect(await readInvitation(keyIn(made), NOW)).toMatchObject({ mail: 'twice@post.example' })
    await withdraw(firm.rafe, form.id, NOW)
  })

  it('keeps no key, and is for admins alone', async () => {
    const made = await invite(firm.rafe, invited({ mail: 'kept@post.example' }), NOW)
    expect(JSON.stringify(await tx(database => database.select().from(invitation)))).not.toContain(keyIn(made))
    for (const who of [firm.ada, firm.odile]) {
      await expect(listPeople(who)).rejects.toMatchObject(problem(403))
      await expect(invite(who, invited(), NOW)).rejects.toMatchObject(problem(403))
      await expect(linkForPassword(who, firm.ada.id, NOW)).rejects.toMatchObject(problem(403))
      await expect(changeColleague(who, who.id, invited({ role: 'admin' }), NOW)).rejects.toMatchObject(problem(403))
      await expect(makeTeam(who, { id: uuid(), name: 'Ours' }, NOW)).rejects.toMatchObject(problem(403))
    }
  })
})

describe('a new password', () => {
  it('is chosen by a link, and ends wherever they were signed in', async () => {
    const before = await signInAs(firm.mika.id, FROM, NOW)
    const made = await linkForPassword(firm.rafe, firm.mika.id, NOW)
    expect(await whoSignedIn(before.signIn, NOW)).toMatchObject({ id: firm.mika.id })
    await join(joining(keyIn(made), { name: 'Somebody Else' }), FROM, NOW)
    expect(await whoSignedIn(before.signIn, NOW)).toBeNull()
    // only the password is theirs to change by it
    const [mika] = await tx(database => database.select().from(colleague).where(eq(colleague.id, firm.mika.id)))
    expect(mika).toMatchObject({ name: firm.mika.name, zone: firm.mika.zone })
    await openSignIn({ mail: firm.mika.mail, password: PASSWORD, code: '' }, FROM, NOW)
    expect(await tx(database => database.select().from(signIn).where(eq(signIn.colleagueId, firm.mika.id)))).toHaveLength(2)
  })
})

describe('a colleague', () => {
  it('is changed with their next click, and the last admin stays one', async () => {
    const { signIn: token } = await signInAs(firm.ada.id, FROM, NOW)
    const form = { name: firm.ada.name, mail: firm.ada.mail, title: 'Team lead', role: 'lead' as const, helpsUntil: null, teamIds: [] }
    const people = await changeColleague(firm.rafe, firm.ada.id, form, NOW)
    expect(people.colleagues.find(({ id }) => id === firm.ada.id)).toMatchObject({ role: 'lead', title: 'Team lead', teamIds: [] })
    expect(await whoSignedIn(token, NOW)).toMatchObject({ role: 'lead', teamIds: [], peopleIds: [] })
    await expect(changeColleague(firm.rafe, firm.rafe.id, { ...form, name: firm.rafe.name, mail: firm.rafe.mail }, NOW))
      .rejects.toMatchObject(problem(409, { type: 'last-admin' }))
    await expect(changeColleague(firm.rafe, firm.ada.id, { ...form, mail: firm.odile.mail }, NOW))
      .rejects.toMatchObject(problem(422, { fields: { mail: expect.stringContaining(firm.odile.name) } }))
    await expect(changeColleague(firm.rafe, firm.ada.id, { ...form, teamIds: [uuid()] }, NOW))
      .rejects.toMatchObject(problem(422, { fields: { teamIds: expect.any(String) } }))
  })
})

describe('a team', () => {
  it('is made and called something else, and two are not called the same', async () => {
    const id = uuid()
    await makeTeam(firm.rafe, { id, name: 'Harbour' }, NOW)
    await makeTeam(firm.rafe, { id, name: 'Harbour' }, NOW)
    expect((await renameTeam(firm.rafe, id, 'Harbour and Hills', NOW)).teams.find(one => one.id === id)).toEqual({ id, name: 'Harbour and Hills', people: 0, lines: 0 })
    await expect(makeTeam(firm.rafe, { id: uuid(), name: 'Harbour and Hills' }, NOW))
      .rejects.toMatchObject(problem(422, { fields: { name: expect.any(String) } }))
  })
})
