import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { monthLater, NumberBook } from '~~/practice/carrier/book'
import { LINES } from '~~/practice/carrier/numbers'
import { offersFor } from '~~/practice/carrier/offers'
import { World, type NumberEvent } from '~~/practice/carrier/world'

const folder = mkdtempSync(join(tmpdir(), 'book-'))
afterAll(() => rmSync(folder, { recursive: true }))

const NOON = Date.parse('2026-12-01T12:00Z')
const DAY = 86_400_000
const [EUGENE, MOBILE] = ['+14585550120', '+447700900700']

async function openBook(here = join(folder, String(Math.random()))) {
  const clock = { now: NOON }
  const told: NumberEvent[] = []
  const world = new World(here)
  const book = new NumberBook(here, world, async (event) => {
    await world.record({ do: 'event', event })
    told.push(event)
  }, () => clock.now)
  const close = await book.open()
  close()
  return { book, told, clock, here, state: (number: string) => book.all().find(one => one.number === number) }
}

describe('numbers of the practice carrier', () => {
  it('are offered by country, place and digits, only those that nobody has', async () => {
    const { book } = await openBook()
    const offers = (wish: object) => offersFor({ country: '', place: '', digits: '', ...wish }, book.isTaken)
    expect(offers({ place: 'oregon' }).map(({ number }) => number)).toContain(EUGENE)
    expect(offers({ place: 'oregon', digits: '0125' })).toMatchObject([{ number: '+14585550125', days: 0, rent: { currency: 'USD' } }])
    expect(offers({ country: 'GB' }).every(({ days, does }) => days > 0 && !does.includes('picture'))).toBe(true)
    await book.take(EUGENE)
    expect(offers({ place: 'oregon' }).map(({ number }) => number)).not.toContain(EUGENE)
  })

  it('are from ranges kept for fiction', () => {
    const all = ['Oregon', 'Washington', 'Minnesota', 'Colorado', 'Ontario', 'Brunswick', 'Mobile'].flatMap(place => offersFor({ country: '', place, digits: '' }, () => false))
    expect(all).toHaveLength(70)
    for (const { number } of all) expect(number).toMatch(/^\+1\d{3}55501\d{2}$|^\+447700900\d{3}$/)
  })

  it('are there at once, paid for then and each month, and told once however often they are asked for', async () => {
    const { book, told, clock, state } = await openBook()
    await book.take(EUGENE)
    expect(await book.take(EUGENE)).toMatchObject({ state: 'given', until: monthLater(NOON) })
    expect(told).toMatchObject([{ type: 'number.given', data: { number: EUGENE, price: { micros: 1_150_000 } } }])
    clock.now = monthLater(NOON) + DAY
    const close = await book.open()
    while (told.length < LINES.length + 2) await new Promise(resolve => setTimeout(resolve, 10))
    close()
    expect(state(EUGENE)).toMatchObject({ state: 'given', until: monthLater(monthLater(NOON)) })
    expect(told.filter(({ data }) => data.number === EUGENE).map(({ type }) => type)).toEqual(['number.given', 'number.rented'])
    // the firm's first numbers have their months too
    expect(told.filter(({ type }) => type === 'number.rented')).toHaveLength(LINES.length + 1)
  })

  it('of a country with papers come after days, with what they cost once', async () => {
    const { book, told, state } = await openBook()
    expect(await book.take(MOBILE)).toMatchObject({ state: 'ordered', until: NOON + 3 * DAY })
    expect(book.works(MOBILE)).toBe(false)
    await book.hasten(MOBILE)
    expect(state(MOBILE)).toMatchObject({ state: 'given' })
    expect(told).toMatchObject([{ type: 'number.given', data: { price: { micros: 4_100_000 } } }])
  })

  it('end when their month is over, can be kept until then, and be had again for a while', async () => {
    const { book, told, clock, state, here } = await openBook()
    await book.take(EUGENE)
    await book.end(EUGENE)
    expect(book.works(EUGENE)).toBe(true)
    expect(await book.keepOn(EUGENE)).toMatchObject({ state: 'given' })
    await book.end(EUGENE)
    await book.hasten(EUGENE)
    expect(state(EUGENE)).toMatchObject({ state: 'ended', until: NOON })
    expect([book.works(EUGENE), book.isTaken(EUGENE)]).toEqual([false, true])
    // all of it outlives a restart
    const again = await openBook(here)
    expect(again.state(EUGENE)).toMatchObject({ state: 'ended' })
    clock.now = NOON + 31 * DAY
    expect(book.isTaken(EUGENE)).toBe(false)
    expect(told.map(({ type }) => type)).toEqual(['number.given', 'number.ended'])
  })

  it('are not taken where there are none', async () => {
    const { book } = await openBook()
    expect(await book.take('+15035559999')).toBeNull()
    expect(await book.end('+15035559999')).toBeNull()
    expect(await book.keepOn('+15035559999')).toBeNull()
  })

  it('have their month on the same day, or the last there is', () => {
    expect(new Date(monthLater(Date.parse('2026-01-31T08:00Z'))).toISOString()).toBe('2026-02-28T08:00:00.000Z')
    expect(new Date(monthLater(Date.parse('2026-12-15T08:00Z'))).toISOString()).toBe('2027-01-15T08:00:00.000Z')
  })
})
