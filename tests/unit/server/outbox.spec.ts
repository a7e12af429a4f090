import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { job, message } from '~~/server/db/schema'
import { addJob } from '~~/server/jobs/add'
import { WORKSHOP } from '~~/server/workshop'
import { followTheClock, MOST_FAILURES, pauseAfter, takeDue, type Claim, type Handler, type Workshop } from '~~/server/jobs/outbox'
import { readStuck, startAgain } from '~~/server/tellers/stuck'
import { takeEvent } from '~~/server/texting/events'
import { sendText } from '~~/server/texting/send'
import { readConversation, readShelf } from '~~/server/pages/shelf'
import { letGo, takeBack } from '~~/server/texting/take-back'
import { sendForm } from '~~/shared/schemas/texting'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
const HOUR = 3_600_000
const LEFT = later(DAY, 5_000)
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
})
beforeEach(() => tx(database => database.execute(sql`update job set done_at = now() where done_at is null`)))

const stateOf = async (id: string) => {
  const [found] = await tx(database =>
    database.select({ state: message.state, code: message.code }).from(message).where(eq(message.id, id)),
  )
  return [found!.state, found!.code].filter(Boolean).join(' ')
}
const textFrom = (from: string, text: string, at = DAY) =>
  takeEvent('practice', { id: uuid(), at, kind: 'received', ref: uuid(), from, to: firm.portland.e164, text }, at)
const jobAbout = async (key: string) => (await tx(database => database.select().from(job).where(eq(job.key, key))))[0]!

describe('a text from a sender that is no number', () => {
  it.each(['A,B', 'O"Neil', '{}', 'Bank', '\\', 'a\'b'])('%s is kept and shown, answered by nobody, and stops nothing', async (from) => {
    const carrier = fakeCarrier()
    await textFrom(from, 'HELP')
    await textFrom(from, 'STOP')
    const waits = (await readShelf(firm.ada)).items.find(({ remote }) => remote === from)!
    const opened = await readConversation(firm.ada, waits.conversationId, DAY)
    expect(opened.entries.map(({ words }) => words)).toEqual(['STOP', 'HELP'])
    const answer = sendForm.validateSync({ id: uuid(), lineId: firm.portland.id, conversationId: waits.conversationId, text: 'Hello?' })
    await expect(sendText(firm.ada, answer, DAY)).rejects.toMatchObject({
      details: { status: 422, fields: { conversationId: expect.stringContaining('no telephone number') } },
    })
    // and the next text of somebody else leaves
    const { phoneId } = await makeLead(firm.ada)
    await sendText(firm.ada, textTo(phoneId, firm.portland), DAY)
    await drain(LEFT)
    expect(carrier.asked.map(({ text }) => text)).toEqual(['Hi Iris, Ada here.'])
  })
})

describe('a job that breaks', () => {
  const add = (kind: string, name: string) => addJob({ kind, key: name, payload: { name }, dueAt: DAY })
  const breaking = (broken: string[], done: string[]): Handler => async claims => claims.map(({ payload }) => {
    if (broken.includes(String(payload.name))) throw new Error(`The words of ${String(payload.name)}`)
    done.push(String(payload.name))
    return null
  })
  const run = async (workshop: Workshop, now: Date) => {
    const { works } = await takeDue(workshop, () => now, 20)
    for (const work of works) await work()
  }

  it('keeps no other of its kind from being done', async () => {
    for (const name of ['one', 'two', 'three']) await add('walk', name)
    const done: string[] = []
    await run({ handlers: { walk: breaking(['two'], done) } }, DAY)
    expect([...new Set(done)].sort()).toEqual(['one', 'three'])
    expect(await jobAbout('walk two')).toMatchObject({ failures: 1, doneAt: null, deadAt: null })
    expect((await jobAbout('walk one')).doneAt).toEqual(DAY)
  })

  it('waits longer each time, says in the log and the table what broke without its words, and is given up in the end', async () => {
    await add('climb', 'hill')
    const gaveUp: Claim['payload'][] = []
    const workshop: Workshop = {
      handlers: { climb: breaking(['hill'], []) },
      endings: { climb: { gaveUp: async ({ payload }) => void gaveUp.push(payload), again: async () => {} } },
    }
    let now = DAY
    for (let failures = 1; failures <= MOST_FAILURES; failures++) {
      await run(workshop, now)
      const broken = await jobAbout('climb hill')
      expect(broken).toMatchObject({ failures, dueAt: later(now, pauseAfter(failures)), leaseUntil: null })
      expect(broken.lastFailure).toMatch(/^Error at /)
      expect(broken.lastFailure).not.toContain('words')
      await run(workshop, later(now, pauseAfter(failures) - 1))
      expect((await jobAbout('climb hill')).failures).toBe(failures)
      now = later(now, pauseAfter(failures))
    }
    expect([pauseAfter(1), pauseAfter(2), pauseAfter(20)]).toEqual([2_000, 4_000, 600_000])
    expect((await jobAbout('climb hill')).deadAt).not.toBeNull()
    expect(gaveUp).toEqual([{ name: 'hill' }])
    await run(workshop, later(now, 24 * HOUR))
    expect((await jobAbout('climb hill')).failures).toBe(MOST_FAILURES)
  })

  it('breaks as well in its work, and begins to count anew once it went well', async () => {
    await add('swim', 'lake')
    let breaks = true
    const workshop: Workshop = { handlers: { swim: async claims => claims.map(() => async () => {
      if (breaks) throw new TypeError('cold')
      return null
    }) } }
    await run(workshop, DAY)
    expect(await jobAbout('swim lake')).toMatchObject({ failures: 1, lastFailure: expect.stringMatching(/^TypeError/) })
    breaks = false
    await run(workshop, later(DAY, 10_000))
    expect((await jobAbout('swim lake')).failures).toBe(1)
  })

  it('of a kind that nobody knows is left alone, and in nobody\'s way', async () => {
    await add('fly', 'kite')
    await add('walk', 'four')
    const done: string[] = []
    await run({ handlers: { walk: breaking([], done) } }, DAY)
    expect(done).toEqual(['four'])
    expect(await jobAbout('fly kite')).toMatchObject({ attempt: 0, doneAt: null, failures: 0 })
  })

  it('is seen by an admin, who starts it again, and by nobody else', async () => {
    const { phoneId } = await makeLead(firm.ada)
    const { id } = await sendText(firm.ada, textTo(phoneId, firm.portland), DAY)
    const broken: Workshop = { ...WORKSHOP, handlers: { ...WORKSHOP.handlers, 'hand-over': async () => {
      throw new Error('It always does.')
    } } }
    for (let now = LEFT, i = 0; i < MOST_FAILURES; i++, now = later(now, 600_000)) await takeDue(broken, () => now, 20)
    expect(await stateOf(id)).toBe('held broken')
    await expect(readStuck(firm.odile)).rejects.toMatchObject({ details: { status: 403 } })
    const stuck = (await readStuck(firm.rafe)).jobs.find(one => one.kind === 'hand-over')!
    expect(stuck).toMatchObject({ what: 'Handing a text to its carrier', failures: MOST_FAILURES })
    const carrier = fakeCarrier()
    await expect(startAgain(firm.ada, stuck.id, later(LEFT, 2 * HOUR))).rejects.toMatchObject({ details: { status: 403 } })
    expect((await startAgain(firm.rafe, stuck.id, later(LEFT, 2 * HOUR))).jobs.map(one => one.id)).not.toContain(stuck.id)
    await drain(later(LEFT, 2 * HOUR))
    expect([carrier.asked.map(({ key }) => key), await stateOf(id)]).toEqual([[id], 'accepted'])
    await expect(startAgain(firm.rafe, stuck.id, DAY)).rejects.toMatchObject({ details: { status: 404 } })
  })

  it('is let go by its writer too, or taken back', async () => {
    const { phoneId } = await makeLead(firm.ada)
    const broken: Workshop = { handlers: { 'hand-over': async () => {
      throw new Error('It always does.')
    } }, endings: WORKSHOP.endings }
    const [one, two] = [
      await sendText(firm.ada, textTo(phoneId, firm.portland), DAY),
      await sendText(firm.ada, textTo(phoneId, firm.portland), DAY),
    ]
    for (let now = LEFT, i = 0; i < 2 * MOST_FAILURES; i++, now = later(now, 600_000)) await takeDue(broken, () => now, 20)
    expect([await stateOf(one.id), await stateOf(two.id)]).toEqual(['held broken', 'held broken'])
    const carrier = fakeCarrier()
    await letGo(firm.ada, one.id, later(DAY, 3 * HOUR))
    await takeBack(firm.ada, two.id, later(DAY, 3 * HOUR))
    await drain(later(DAY, 3 * HOUR))
    expect(carrier.asked.map(({ key }) => key)).toEqual([one.id])
  })
})

describe('an outage', () => {
  const away = { kind: 'try-later', afterMs: 60_000, certain: true, code: 'carrier-unreachable' } as const
  const many = async (count: number) => {
    const texts: string[] = []
    for (let i = 0; i < count; i++) {
      const { phoneId } = await makeLead(firm.ada)
      texts.push((await sendText(firm.ada, textTo(phoneId, firm.portland), DAY)).id)
    }
    return texts
  }
  const states = (ids: string[]) => Promise.all(ids.map(stateOf))

  it('of this machine for two hours loses none of the texts that waited', async () => {
    const texts = await many(4)
    const carrier = fakeCarrier()
    await drain(later(LEFT, 2 * HOUR))
    expect(await states(texts)).toEqual(texts.map(() => 'accepted'))
    expect(carrier.asked).toHaveLength(4)
  })

  it('that begins when a text is first tried, long after it was due, gives it its hour too', async () => {
    const [id] = await many(1) as [string]
    const carrier = fakeCarrier()
    const back = later(LEFT, 2 * HOUR)
    carrier.next(away)
    await drain(back)
    expect(await stateOf(id)).toBe('waiting')
    await drain(later(back, 59 * 60_000))
    expect(await stateOf(id)).toBe('accepted')
  })

  it('of the carrier for more than an hour holds them for their writer, and fails none', async () => {
    const texts = await many(3)
    const carrier = fakeCarrier()
    for (let minutes = 0; minutes <= 65; minutes += 5) {
      for (const _ of texts) carrier.next(away)
      await drain(later(LEFT, minutes * 60_000))
    }
    expect(await states(texts)).toEqual(texts.map(() => 'held carrier-away'))
    const again = fakeCarrier()
    for (const id of texts) await letGo(firm.ada, id, later(LEFT, 2 * HOUR))
    await drain(later(LEFT, 2 * HOUR))
    expect(await states(texts)).toEqual(texts.map(() => 'accepted'))
    expect(again.asked).toHaveLength(3)
  })

  it('is none where the carrier only has no room: a text waits for its turn for hours', async () => {
    const [id] = await many(1) as [string]
    const carrier = fakeCarrier()
    for (let minutes = 0; minutes < 180; minutes += 10) {
      carrier.next({ kind: 'no-room', afterMs: 60_000 })
      await drain(later(LEFT, minutes * 60_000))
    }
    expect([carrier.asked.length, await stateOf(id)]).toEqual([18, 'waiting'])
    await drain(later(LEFT, 181 * 60_000))
    expect(await stateOf(id)).toBe('accepted')
  })

  it('of half a day holds what was written before it: it may not hold any more', async () => {
    const [id] = await many(1) as [string]
    const carrier = fakeCarrier()
    const evening = later(LEFT, 4 * HOUR + 1_000)
    await drain(evening)
    expect([carrier.asked.length, await stateOf(id)]).toEqual([0, 'held late'])
    await letGo(firm.ada, id, evening)
    await drain(evening)
    expect(await stateOf(id)).toBe('accepted')
  })
})

describe('a clock that goes back an hour', () => {
  it('holds nothing up: what was to be in a moment is in a moment, what is due at a time of day stays there', async () => {
    const carrier = fakeCarrier()
    const { phoneId } = await makeLead(firm.ada, { region: 'OR' }, '541 555 0177')
    const now = await sendText(firm.ada, textTo(phoneId, firm.portland), DAY)
    const scheduled = await sendText(
      firm.ada,
      textTo(phoneId, firm.portland, { later: { wallTime: '2026-11-25T09:00', zone: 'Pacific/Honolulu' }, text: 'Good morning' }),
      DAY,
    )
    const before = later(DAY, -HOUR)
    await drain(later(before, 10_000))
    expect(carrier.asked).toEqual([])
    await followTheClock(before)
    await drain(later(before, 4_000))
    expect(carrier.asked).toEqual([])
    await drain(later(before, 5_000))
    expect(carrier.asked.map(({ key }) => key)).toEqual([now.id])
    expect((await jobAbout(`hand-over ${scheduled.id}`)).dueAt).toEqual(new Date('2026-11-25T19:00:00Z'))
    await drain(new Date('2026-11-25T19:00:00Z'))
    expect(carrier.asked.map(({ key }) => key)).toEqual([now.id, scheduled.id])
  })

  it('gives back what was claimed before', async () => {
    await addJob({ kind: 'walk', key: 'back', payload: {}, dueAt: DAY })
    const workshop: Workshop = { handlers: { walk: async claims => claims.map(() => () => new Promise(() => {})) } }
    await takeDue(workshop, () => DAY, 20)
    const before = later(DAY, -HOUR)
    await followTheClock(before)
    expect((await jobAbout('walk back')).leaseUntil).toEqual(later(before, 30_000))
  })
})
