import fc from 'fast-check'
import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { can, type Role } from '~~/shared/permissions'
import { editRecord, recordForm } from '~~/shared/schemas/record'
import { tx } from '~~/server/db/door'
import * as schema from '~~/server/db/schema'
import type { SignedIn } from '~~/server/identity/sign-in'
import { putOn } from '~~/server/records/people'
import { phonesOf } from '~~/server/records/phones'
import { addRecord, changeRecord } from '~~/server/records/save'
import { takeEvent } from '~~/server/texting/events'
import { sendText } from '~~/server/texting/send'
import { scheduledOn } from '~~/server/texting/scheduled'
import { readPicture } from '~~/server/texting/pictures'
import { findSaid } from '~~/server/timeline/find'
import { readTimeline } from '~~/server/timeline/read'
import { takeAlong } from '~~/server/activity/take-along'
import { decideConsent } from '~~/server/consent/decide'
import { consentForm } from '~~/shared/schemas/texting'
import type { Line } from '~~/server/texting/lines'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, makeThing, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
})

const wordsOn = async (asker: SignedIn, recordId: string) =>
  (await readTimeline(asker, recordId)).entries.map(({ words }) => words).filter(Boolean)
const textFrom = (from: string, line: Line, text: string, at = DAY) =>
  takeEvent('practice', { id: uuid(), at, kind: 'received', ref: uuid(), from, to: line.e164, text }, at)
const addNumber = async (asker: SignedIn, recordId: string, typed: string) => {
  const { rows: [found] } = await tx(database => database.execute<{ version: number, first_name: string }>(sql`select version, first_name
    from record where id = ${recordId}::uuid`))
  await changeRecord(
    asker,
    recordId,
    editRecord.validateSync({ firstName: found!.first_name, version: found!.version, phones: [{ label: 'mobile', typed }] }),
    DAY,
  )
}
const candidate = async (number: string) => {
  const id = uuid()
  await addRecord(
    firm.noor,
    {
      ...recordForm.validateSync({ firstName: 'Wren', phones: [{ label: 'mobile', typed: number }] }),
      personIds: [],
      id,
      module: 'candidate',
    },
    DAY,
  )
  const [phone] = await phonesOf(firm.noor, [id])
  return { id, phoneId: phone!.id }
}
let numbers = 0
const freshNumber = () => `+1647555${String(100 + numbers++).padStart(4, '0')}`

describe('a number that is on somebody else\'s record', () => {
  it('takes nothing along that whoever writes it down may not see, and gets nothing of what is said later', async () => {
    const number = freshNumber()
    const wren = await candidate(number)
    await textFrom(number, firm.halifax, 'before the theft')
    const recordId = await makeThing(firm.ada, 'lead', { firstName: 'Iris' })
    await addNumber(firm.ada, recordId, number)
    await textFrom(number, firm.halifax, 'after the theft', later(DAY, 1_000))
    await sendText(firm.noor, textTo(wren.phoneId, firm.halifax, { text: 'our answer' }), later(DAY, 2_000))
    await sendText(
      firm.noor,
      textTo(wren.phoneId, firm.halifax, { text: 'for tomorrow', later: { wallTime: '2026-11-27T12:00', zone: 'America/Toronto' } }),
      later(DAY, 3_000),
    )
    expect(await wordsOn(firm.ada, recordId)).toEqual([])
    expect((await findSaid(firm.ada, 'theft')).length).toBe(0)
    expect(await scheduledOn(firm.ada, recordId)).toEqual([])
    expect((await wordsOn(firm.noor, wren.id)).sort()).toEqual(['after the theft', 'before the theft', 'for tomorrow', 'our answer'])
    // whoever sees both sees it on both, and it is still the candidate's
    expect((await wordsOn(firm.odile, recordId)).sort()).toEqual(['after the theft', 'for tomorrow', 'our answer'])
  })

  it('takes along what an adder may see, for those who may see it', async () => {
    const number = freshNumber()
    const wren = await candidate(number)
    await textFrom(number, firm.halifax, 'to the recruiter')
    const recordId = await makeThing(firm.ada, 'lead', { firstName: 'Iris' })
    await addNumber(firm.odile, recordId, number)
    expect(await wordsOn(firm.odile, recordId)).toEqual(['to the recruiter'])
    expect(await wordsOn(firm.ada, recordId)).toEqual([])
    expect(await wordsOn(firm.noor, wren.id)).toEqual(['to the recruiter'])
  })

  it('on no record yet brings its conversation to the record that is made of it, calls too, but only by who may read it', async () => {
    const number = freshNumber()
    await textFrom(number, firm.portland, 'who is this?')
    const callId = uuid()
    const activityId = uuid()
    await tx(async (database) => {
      await database.insert(schema.activity).values({ id: activityId, at: DAY, kind: 'call-in' })
      await database.insert(schema.activityContent).values({ activityId, words: 'rang about bikes' })
      await database
        .insert(schema.call)
        .values({
          id: callId,
          direction: 'in',
          lineId: firm.portland.id,
          remote: number,
          activityId,
          exchange: 'practice',
          exchangeRef: callId,
          madeAt: DAY,
          endedAt: DAY,
          endWhy: 'hung-up',
          endSide: 'them',
        })
    })
    const hers = await candidate(number)
    expect(await wordsOn(firm.noor, hers.id)).toEqual([])
    const recordId = await makeThing(firm.ada, 'lead', { firstName: 'Iris' })
    await addNumber(firm.ada, recordId, number)
    expect((await wordsOn(firm.ada, recordId)).sort()).toEqual(['rang about bikes', 'who is this?'])
    expect((await wordsOn(firm.mika, recordId)).sort()).toEqual(['rang about bikes', 'who is this?'])
  })

  it('gives away no picture, no words of a wish, and no words of a private line', async () => {
    const number = freshNumber()
    const { recordId } = await makeLead(firm.ada, {}, number)
    await textFrom(number, firm.own, 'please do not text me any more')
    const { rows: [wish] } = await tx(database => database.execute<{ id: string, activity_id: string }>(sql`select id, activity_id
      from consent_proposal where e164 = ${number}`))
    const mikas = await makeThing(firm.mika, 'lead', { firstName: 'Iris' })
    await addNumber(firm.mika, mikas, number)
    const [phone] = await phonesOf(firm.mika, [mikas])
    await expect(
      decideConsent(firm.mika, phone!.id, consentForm.validateSync({ agrees: false, proposalId: wish!.id }), DAY),
    ).rejects.toMatchObject({ details: { status: 404 } })
    const pictureId = uuid()
    await tx(async (database) => {
      const { rows: [message] } = await database.execute<{ id: string }>(sql`select id from message
        where activity_id = ${wish!.activity_id}::uuid`)
      await database
        .insert(schema.picture)
        .values({
          id: pictureId,
          colleagueId: firm.noor.id,
          messageId: message!.id,
          type: 'image/png',
          width: 1,
          height: 1,
          size: 3,
          bytes: Buffer.from('PNG'),
          at: DAY,
        })
    })
    await expect(readPicture(firm.mika, pictureId)).rejects.toMatchObject({ details: { status: 404 } })
    await expect(readPicture(firm.ada, pictureId)).resolves.toMatchObject({ type: 'image/png' })
    // Ada decides, without words of her own: the ledger has those of the text, and only she reads them
    const [own] = await phonesOf(firm.ada, [recordId])
    await decideConsent(firm.ada, own!.id, consentForm.validateSync({ agrees: false, proposalId: wish!.id }), DAY)
    expect((await phonesOf(firm.ada, [recordId]))[0]!.consent).toMatchObject({ texts: 'refused', words: 'please do not text me any more' })
    expect((await phonesOf(firm.mika, [mikas]))[0]!.consent).toMatchObject({ texts: 'refused', words: null, line: null })
    expect((await wordsOn(firm.mika, mikas)).join()).not.toContain('any more')
    expect((await wordsOn(firm.mika, recordId)).join()).not.toContain('any more')
  })
})

describe('a company, a deal', () => {
  it('shows what was said with somebody on it to those who may see them, and not even their name to others', async () => {
    const company = await makeThing(firm.ada, 'company', { name: 'Rye & Co' })
    const deal = await makeThing(firm.ada, 'deal')
    const number = freshNumber()
    const wren = uuid()
    await addRecord(
      firm.noor,
      {
        ...recordForm.validateSync({ firstName: 'Wren', phones: [{ label: 'mobile', typed: number }] }),
        personIds: [],
        id: wren,
        module: 'candidate',
      },
      DAY,
    )
    await tx(database => database.execute(sql`update record set company_id = ${company}::uuid where id = ${wren}::uuid`))
    await putOn(firm.odile, deal, wren, DAY)
    await textFrom(number, firm.halifax, 'I start on Monday')
    for (const id of [company, deal]) {
      expect(await wordsOn(firm.odile, id)).toContain('I start on Monday')
      const seen = await readTimeline(firm.ada, id)
      expect(JSON.stringify(seen)).not.toContain('I start on Monday')
      expect(seen.entries.map(({ via }) => via)).not.toContainEqual(expect.objectContaining({ name: 'Wren' }))
    }
  })
})

interface World { people: SignedIn[], lines: Line[] }

/** Two to three teams with a few colleagues, and lines of teams and of their own, some private. */
async function makeWorld(choices: {
  roles: Role[]
  memberships: boolean[][]
  lines: { owner: number, private: boolean }[]
}): Promise<World> {
  const teams = [uuid(), uuid(), uuid()]
  const ids = choices.roles.map(() => uuid())
  const members = choices.memberships.map(row => teams.filter((_, i) => row[i]))
  const people = choices.roles.map((role, i): SignedIn => ({
    id: ids[i]!,
    role,
    teamIds: members[i]!,
    peopleIds: ids.filter((_, j) => j === i || members[i]!.some(team => members[j]!.includes(team))),
    name: `Person ${i}`,
    firstName: `Person ${i}`,
    mail: `${ids[i]}@pannier.example`,
    title: 'Sales',
    directLine: null,
    zone: 'America/Los_Angeles',
  }))
  const lines = choices.lines.map(({ owner, private: privately }): Line => ({
    id: uuid(),
    e164: freshNumber(),
    name: `Line ${owner}`,
    country: 'CA',
    teamId: owner < 3 ? teams[owner]! : null,
    colleagueId: owner < 3 ? null : ids[owner % ids.length]!,
    private: privately,
    state: 'active', active: true, turnsAt: null, rentMicros: null, rentCurrency: null, toldAt: null,
    carrier: 'practice',
    languages: [],
    records: false,
    ownerFirst: false,
    greeting: null,
    busyGreeting: null,
    ringOrder: [],
    takeOrder: [],
    textsAMinute: 60,
    textsADay: null, newSince: null, standInId: null,
    tookLast: null,
    ringSound: 'quick',
    ringSeconds: 25,
    hours: null,
  }))
  await tx(async (database) => {
    await database.insert(schema.team).values(teams.map((id, i) => ({ id, name: `Team ${i}` })))
    await database
      .insert(schema.colleague)
      .values(
        people.map(({ id, name, firstName, mail, role, title, zone }) => ({
          id,
          name,
          firstName,
          mail,
          role,
          title,
          zone,
          passwordHash: 'none',
        })),
      )
    const rows = people.flatMap(one => one.teamIds.map(teamId => ({ teamId, colleagueId: one.id })))
    if (rows.length > 0) await database.insert(schema.teamMember).values(rows)
    await database.insert(schema.line).values(lines)
  })
  return { people, lines }
}

describe('whoever reads an entry', () => {
  const world = fc.record({
    roles: fc.array(fc.constantFrom<Role>('rep', 'rep', 'rep', 'lead', 'admin'), { minLength: 3, maxLength: 4 }),
    memberships: fc.array(fc.array(fc.boolean(), { minLength: 3, maxLength: 3 }), { minLength: 4, maxLength: 4 }),
    lines: fc.array(fc.record({ owner: fc.nat(6), private: fc.boolean() }), { minLength: 2, maxLength: 3 }),
  })
  // mostly the same number: what is shared is what this is about
  const number = fc.constantFrom(0, 0, 0, 1)
  const add = fc.record({ do: fc.constant('add' as const), who: fc.nat(3), number, company: fc.option(fc.nat(2), { freq: 2 }) })
  const hear = fc.record({ do: fc.constant('hear' as const), line: fc.nat(2), number })
  const step = fc.oneof(
    add,
    hear,
    fc.record({ do: fc.constant('send' as const), who: fc.nat(3), line: fc.nat(2), record: fc.nat(5) }),
    fc.record({ do: fc.constant('give' as const), who: fc.nat(3), record: fc.nat(5), number }),
  )
  const steps = fc
    .tuple(
      fc.array(add, { minLength: 1, maxLength: 2 }),
      fc.array(hear, { minLength: 1, maxLength: 2 }),
      fc.array(add, { minLength: 1, maxLength: 3 }),
      fc.array(step, { maxLength: 6 }),
    )
    .map(parts => parts.flat())

  it('may see a record that it was with, or answers its line, whatever numbers are written down by whom', async () => {
    let read = 0
    await fc.assert(fc.asyncProperty(world, steps, async (choices, steps) => {
      const { people, lines } = await makeWorld(choices)
      const numbers = [freshNumber(), freshNumber()]
      const records: { id: string, ownerId: string, teamId: string, number: string | null, company: boolean }[] = []
      // an entry: over which line, and with whom it was by the plainest reading: those who held the number when it was said
      const said: { words: string, line: Line, remote: string, heldBy: string[] }[] = []
      let clock = DAY.getTime()
      const add = async (owner: SignedIn, module: 'lead' | 'company', number: string | null, companyId: string | null) => {
        const id = uuid()
        const form = recordForm.validateSync({
          firstName: 'Iris',
          name: 'Rye',
          companyId,
          phones: number ? [{ label: 'mobile', typed: number }] : [],
        })
        await addRecord(owner, { ...form, personIds: [], id, module }, new Date(clock))
        const [stored] = await tx(database => database.query.record.findMany({ where: (table, { eq }) => eq(table.id, id) }))
        records.push({ id, ownerId: stored!.ownerId, teamId: stored!.teamId, number, company: module === 'company' })
      }
      for (const one of steps) {
        clock += 60_000
        const words = `said ${uuid()}`
        if (one.do === 'add') {
          const owner = people[one.who % people.length]!
          if (owner.teamIds.length === 0) continue
          const companies = records.filter(known => known.company && can(owner, 'record.see', known))
          await add(
            owner,
            one.company === 0 ? 'company' : 'lead',
            one.company === 0 ? null : numbers[one.number]!,
            one.company === null || one.company === 0 ? null : (companies[one.company % Math.max(1, companies.length)]?.id ?? null),
          )
        }
        else if (one.do === 'hear') {
          const line = lines[one.line % lines.length]!
          const remote = numbers[one.number]!
          await textFrom(remote, line, words, new Date(clock))
          said.push({ words, line, remote, heldBy: records.filter(({ number }) => number === remote).map(({ id }) => id) })
        }
        else if (one.do === 'give') {
          const to = records[one.record % Math.max(1, records.length)]
          const who = people[one.who % people.length]!
          if (!to || to.number || to.company || !can(who, 'record.edit', to)) continue
          to.number = numbers[one.number]!
          await tx(database =>
            database
              .insert(schema.phone)
              .values({
                id: uuid(),
                recordId: to.id,
                position: 0,
                label: 'mobile',
                typed: to.number!,
                e164: to.number,
                country: 'CA',
                kind: 'mobile',
              }),
          )
          await takeAlong(who, to.id, to.number)
        }
        else {
          const who = people[one.who % people.length]!
          const line = lines[one.line % lines.length]!
          const to = records.filter(({ number }) => number)[one.record]
          if (!to || !can(who, 'record.see', to) || !can(who, 'line.answer', { ownerId: line.colleagueId, teamId: line.teamId })) continue
          const [phone] = await phonesOf(who, [to.id])
          await sendText(who, textTo(phone!.id, line, { text: words, nightAllowed: true }), new Date(clock))
          said.push({ words, line, remote: to.number!, heldBy: [to.id] })
        }
      }
      for (const reader of people) {
        for (const shown of records.filter(one => can(reader, 'record.see', one))) {
          for (const words of await wordsOn(reader, shown.id)) {
            const entry = said.find(one => one.words === words)
            if (!entry) continue
            read++
            const answers = can(reader, 'line.answer', { ownerId: entry.line.colleagueId, teamId: entry.line.teamId })
            const saw = entry.heldBy.some(id => can(reader, 'record.see', records.find(one => one.id === id)!))
            // what was said with nobody on record belongs to the first record that is made of it
            const adopted = entry.heldBy.length === 0
            const may = answers || (!entry.line.private && (saw || adopted))
            if (!may) throw new Error(`${reader.role} reads ${entry.remote} over ${entry.line.name} on a record of ${shown.ownerId}`)
          }
        }
        // and finds no more than that
        for (const entry of said.slice(0, 3)) {
          const found = await findSaid(reader, entry.words)
          const answers = can(reader, 'line.answer', { ownerId: entry.line.colleagueId, teamId: entry.line.teamId })
          const saw = entry.heldBy.length === 0 || entry.heldBy.some(id => can(reader, 'record.see', records.find(one => one.id === id)!))
          if (found.length > 0 && !(answers || (!entry.line.private && saw)))
            throw new Error(`${reader.role} finds what was said over ${entry.line.name}`)
        }
      }
    }), { numRuns: process.env.TEST_SERVER ? 15 : 50, seed: 7, endOnFailure: true })
    expect(read).toBeGreaterThan(process.env.TEST_SERVER ? 20 : 100)
  }, 240_000)
})
