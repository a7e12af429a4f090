import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { practiceCarrier } from '~~/server/carriers/practice'
import { practiceExchange } from '~~/server/calling/practice-exchange'
import { tx } from '~~/server/db/door'
import { job, line, message } from '~~/server/db/schema'
import { addJob } from '~~/server/jobs/add'
import { settle, takeDue, type Claim, type Handler } from '~~/server/jobs/outbox'
import { WORKSHOP } from '~~/server/workshop'
import { listen } from '~~/server/live/notices'
import { addNote } from '~~/server/timeline/note'
import { readPicture, takePicture } from '~~/server/texting/pictures'
import { sendText } from '~~/server/texting/send'
import type { Notice } from '~~/shared/live'
import { Webhook } from 'standardwebhooks'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'
import { noise } from '../../support/noise'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

const problem = (status: number) => ({ details: { status } })
/** When a lease that was taken at DAY has run out. */
const LAPSED = later(DAY, 31_000)
const jobAbout = async (key: string) => (await tx(database => database.select().from(job).where(eq(job.key, key))))[0]!
const stored = async (id: string) => (await tx(database => database.select().from(message).where(eq(message.id, id))))[0]!

describe('an attempt whose lease has run out', () => {
  it('settles nothing any more once another has come', async () => {
    await addJob({ kind: 'dig', key: 'pit', payload: {}, dueAt: DAY })
    const claims: Claim[] = []
    const handler: Handler = async taken => taken.map((claim) => {
      claims.push(claim)
      return async () => null
    })
    for (const now of [DAY, LAPSED]) await takeDue({ handlers: { dig: handler } }, () => now, 5)
    const [first, second] = claims as [Claim, Claim]
    await expect(settle(first, LAPSED, async () => 'done')).rejects.toThrow()
    expect((await jobAbout('dig pit')).doneAt).toBeNull()
    await settle(second, LAPSED, async () => 'done')
    expect((await jobAbout('dig pit')).doneAt).toEqual(LAPSED)
  })

  it('writes no carrier’s answer over what the later one was told', async () => {
    const carrier = fakeCarrier()
    const answers: ((ref: string) => void)[] = []
    const slowly = () =>
      new Promise<{ kind: 'accepted', ref: string, charge: null }>(resolve =>
        answers.push(ref => resolve({ kind: 'accepted', ref, charge: null })),
      )
    carrier.next(slowly)
    carrier.next(slowly)
    const lead = await makeLead(firm.ada)
    const { id } = await sendText(firm.ada, textTo(lead.phoneId, firm.portland), DAY)
    const begin = async (now: Date) => (await takeDue(WORKSHOP, () => now, 5)).works.map(work => work())
    const [first] = await begin(later(DAY, 10_000))
    const [second] = await begin(later(LAPSED, 10_000))
    while (answers.length < 2) await new Promise(resolve => setTimeout(resolve, 5))
    answers[0]!('the late one')
    expect(await first).toBeNull()
    expect(await stored(id)).toMatchObject({ state: 'handing-over', carrierRef: null })
    answers[1]!('the one that counts')
    await second
    expect(await stored(id)).toMatchObject({ state: 'accepted', carrierRef: 'the one that counts' })
  })
})

describe('a lane', () => {
  it('has one job in flight, the oldest, however many are due', async () => {
    for (const name of ['first', 'second']) await addJob({ kind: 'queue', key: name, lane: 'counter', payload: { name }, dueAt: DAY })
    await addJob({ kind: 'queue', key: 'elsewhere', payload: { name: 'elsewhere' }, dueAt: DAY })
    const take = async (now: Date) => {
      const taken: string[] = []
      await takeDue(
        { handlers: { queue: async claims => claims.map(({ payload }) => (taken.push(String(payload.name)), async () => null)) } },
        () => now,
        5,
      )
      return taken.sort()
    }
    expect(await take(DAY)).toEqual(['elsewhere', 'first'])
    expect(await take(later(DAY, 1_000))).toEqual([])
    await tx(database => database.update(job).set({ doneAt: DAY }).where(eq(job.key, 'queue first')))
    expect(await take(later(DAY, 2_000))).toEqual(['second'])
  })
})

describe('a picture over a private line', () => {
  it('is for those who answer the line, though others see the record', async () => {
    fakeCarrier()
    const { phoneId } = await makeLead(firm.ada)
    const { id } = await takePicture(firm.ada, uuid(), await noise(40, 30).png().toBuffer(), DAY)
    await sendText(firm.ada, textTo(phoneId, firm.own, { pictureIds: [id] }), DAY)
    expect((await readPicture(firm.ada, id)).type).toBe('image/png')
    for (const other of [firm.mika, firm.noor]) await expect(readPicture(other, id)).rejects.toMatchObject(problem(404))
    await tx(database => database.update(line).set({ private: false }).where(eq(line.id, firm.own.id)))
    await expect(readPicture(firm.noor, id)).rejects.toMatchObject(problem(404))
  })
})

describe('a notice', () => {
  it('goes to those who may see what it is about, and to nobody else', async () => {
    const { recordId } = await makeLead(firm.ada)
    const told: Record<string, Notice[]> = {}
    const stops = Object.entries({ ada: firm.ada, mika: firm.mika, noor: firm.noor, rafe: firm.rafe }).map(([name, who]) =>
      listen(who, notice => void (told[name] ??= []).push(notice)),
    )
    await addNote(firm.ada, recordId, { id: uuid(), words: 'Two loose racks.' }, DAY)
    stops.forEach(stop => stop())
    expect(Object.keys(told).sort()).toEqual(['ada', 'mika', 'rafe'])
    expect(told.mika).toEqual(expect.arrayContaining([expect.objectContaining({ kind: 'entry', recordId })]))
  })
})

describe('a signature', () => {
  const secret = Buffer.alloc(24, 7).toString('base64')
  const access = { url: 'http://127.0.0.1:9', key: 'k', webhookSecret: secret }
  const body = '{"type":"text.delivered"}'
  const signed = (by: string, at = new Date()) => ({
    'webhook-id': 'a',
    'webhook-timestamp': String(Math.floor(at.getTime() / 1_000)),
    'webhook-signature': new Webhook(by).sign('a', at, body),
  })

  it.each([
    ['the carrier', () => practiceCarrier(access).webhook!.isSigned],
    ['the exchange', () => practiceExchange(access).isSigned],
  ])('of %s is checked: by whom, over what, and when', (_, isSigned) => {
    const check = isSigned()
    expect(check(Buffer.from(body), signed(secret))).toBe(true)
    expect(check(Buffer.from(body), signed(Buffer.alloc(24, 8).toString('base64')))).toBe(false)
    expect(check(Buffer.from(body.replace('delivered', 'received')), signed(secret))).toBe(false)
    expect(check(Buffer.from(body), signed(secret, new Date(Date.now() - 600_000)))).toBe(false)
    expect(check(Buffer.from(body), {})).toBe(false)
  })
})
