import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { catchUp, keepUpWith } from '~~/server/tellers/keep-up'
import { practiceCarrier } from '~~/server/carriers/practice'
import { carrierTeller, registerTeller, type Teller } from '~~/server/tellers/tellers'
import { takeOrSetAside } from '~~/server/tellers/set-aside'
import { tx } from '~~/server/db/door'
import { carrierCursor, setAsideEvent } from '~~/server/db/schema'
import { readStuck, settleEvent } from '~~/server/tellers/stuck'
import { readTimeline } from '~~/server/timeline/read'
import { useDatabase } from '../../support/database'
import { DAY, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
})

const carrier = practiceCarrier({
  url: 'http://127.0.0.1:9',
  key: 'k',
  webhookSecret: Buffer.from('a secret of the test').toString('base64'),
})
const received = (from: string, text: string, more: object = {}) => ({
  id: uuid(),
  type: 'text.received',
  at: DAY.toISOString(),
  data: { id: uuid(), from, to: firm.portland.e164, text, ...more },
})
const pagesOf = (name: string, ...pages: unknown[][]): Teller => ({
  ...carrierTeller(carrier),
  name,
  eventsSince: async (cursor) => {
    const page = Number(cursor || 0)
    return { told: pages[page] ?? [], cursor: String(Math.min(page + 1, pages.length)) }
  },
})
const setAside = (teller: string) => tx(database => database.select().from(setAsideEvent).where(eq(setAsideEvent.teller, teller)))

describe('catching up', () => {
  it('goes on past what nobody can read, and keeps it once for an admin', async () => {
    const { recordId, e164 } = await makeLead(firm.ada)
    const odd = [
      { id: 'no type' },
      'words',
      null,
      received(e164, 'x', { id: 'a\0b' }),
      { ...received(e164, 'x'), at: 'never' },
      { ...received(e164, 'x'), type: 'text.eaten' },
    ]
    const teller = pagesOf('odd', [received(e164, 'first'), ...odd], [received(e164, 'second')], odd)
    await catchUp(teller, () => DAY)
    expect(
      (await readTimeline(firm.ada, recordId)).entries
        .filter(({ kind }) => kind === 'text-in')
        .map(({ words }) => words)
        .sort(),
    ).toEqual(['first', 'second'])
    const kept = await setAside('odd')
    expect(kept).toHaveLength(odd.length)
    expect(kept.find(({ told }) => told.includes('text.eaten'))!.why).toContain('It is not what we expect: type must be one of')
    const [cursor] = await tx(database => database.select().from(carrierCursor).where(eq(carrierCursor.carrier, 'odd')))
    expect(cursor!.cursor).toBe('3')
  })

  it('keeps a text with a character that no database takes, and says where it was', async () => {
    const { recordId, e164 } = await makeLead(firm.ada)
    await catchUp(pagesOf('nul', [received(e164, 'a\0b \uD800')]), () => DAY)
    expect((await readTimeline(firm.ada, recordId)).entries[0]!.words).toBe('a\uFFFDb \uFFFD')
    expect(await setAside('nul')).toEqual([])
  })

  it('sets nothing aside because of what stands in the way of all: it is told again', async () => {
    for (const code of ['08006', '53100', '57P01', '40001']) {
      const teller: Teller = {
        name: 'later',
        eventsSince: async () => ({ told: [{}], cursor: '1' }),
        take: async () => Promise.reject(Object.assign(new Error('away'), { code })),
      }
      await expect(catchUp(teller, () => DAY)).rejects.toThrow('away')
    }
    expect(await setAside('later')).toEqual([])
    expect(await tx(database => database.select().from(carrierCursor).where(eq(carrierCursor.carrier, 'later')))).toEqual([])
  })

  it('with one goes on though another does not answer', async () => {
    const asked: string[] = []
    const away: Teller = { name: 'away', eventsSince: async () => Promise.reject(new Error('away')), take: async () => true }
    const there: Teller = { name: 'there', eventsSince: async cursor => (asked.push(cursor), { told: [], cursor }), take: async () => true }
    const stop = keepUpWith([{ ...carrier, prices: async () => Promise.reject(new Error('away')) }], [away, there], 60_000)
    await new Promise(resolve => setTimeout(resolve, 300))
    stop()
    expect(asked).toEqual([''])
  })
})

describe('what is set aside', () => {
  it('is read once more, or let be, by an admin alone', async () => {
    let broken = true
    const taken: unknown[] = []
    registerTeller({ name: 'mended', eventsSince: async cursor => ({ told: [], cursor }), take: async (told) => {
      if (broken) throw new TypeError('not yet')
      taken.push(told)
      return true
    } })
    const teller: Teller = {
      name: 'mended',
      eventsSince: async cursor => ({ told: [], cursor }),
      take: async () => Promise.reject(new TypeError('not yet')),
    }
    expect(await takeOrSetAside(teller, { a: 1 }, DAY)).toBe('set-aside')
    expect(await takeOrSetAside(teller, { a: 1 }, DAY)).toBe('set-aside')
    expect(await takeOrSetAside(teller, { b: 2 }, DAY)).toBe('set-aside')
    const kept = (await readStuck(firm.rafe)).events.filter(({ from }) => from === 'mended')
    expect(kept.map(({ told, again }) => [told, again])).toEqual(expect.arrayContaining([['{"a":1}', true], ['{"b":2}', true]]))
    expect(kept).toHaveLength(2)
    const [first, second] = kept as [typeof kept[number], typeof kept[number]]
    await expect(settleEvent(firm.odile, first.id, 'again', DAY)).rejects.toMatchObject({ details: { status: 403 } })
    await expect(settleEvent(firm.rafe, first.id, 'again', DAY)).rejects.toMatchObject({ details: { status: 409, type: 'still-stuck' } })
    broken = false
    await settleEvent(firm.rafe, first.id, 'again', DAY)
    const left = await settleEvent(firm.rafe, second.id, 'leave', DAY)
    expect(left.events.filter(({ from }) => from === 'mended')).toEqual([])
    expect(taken).toEqual([JSON.parse(first.told)])
    await expect(settleEvent(firm.rafe, second.id, 'leave', DAY)).rejects.toMatchObject({ details: { status: 404 } })
    const { rows } = await tx(database => database.execute<{ action: string }>(sql`select action from audit where action like 'event-%'`))
    expect(rows.map(({ action }) => action).sort()).toEqual(['event-let-be', 'event-taken-after-all'])
  })
})
