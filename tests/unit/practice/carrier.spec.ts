import { appendFileSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join as joinPath } from 'node:path'
import fc from 'fast-check'
import { measureText } from '~~/core'
import { cut, join } from '~~/practice/carrier/air'
import { NumberBook } from '~~/practice/carrier/book'
import { LINES, PRICES } from '~~/practice/carrier/numbers'
import { priceOf, refusalOf } from '~~/practice/carrier/rules'
import { NO_TABLES } from '~~/practice/carrier/tables'
import { World, type SentText } from '~~/practice/carrier/world'
import { LINES as DEMO_LINES } from '~~/demo/colleagues'

const folder = mkdtempSync(joinPath(tmpdir(), 'practice-'))
afterAll(() => rmSync(folder, { recursive: true }))

const CHARS = [...'abc ABC @£$\n€{}[]~^|\\éùñ', '’', '😀', '漢']
const anyText = fc.array(fc.constantFrom(...CHARS), { minLength: 1, maxLength: 500 }).map(chars => chars.join(''))

describe('the air', () => {
  it('brings every text whole to a handset, whatever order its parts come in', () => {
    fc.assert(fc.property(anyText, fc.boolean(), (text, backwards) => {
      const parts = cut(text, 7)
      expect(join(backwards ? [...parts].reverse() : parts)).toBe(text)
      expect(parts.length === 1 || join(parts.slice(1)) === null).toBe(true)
    }))
  })

  it('uses as many parts as the ruler says, each within 140 octets', () => {
    fc.assert(fc.property(anyText, (text) => {
      const parts = cut(text, 1)
      expect(parts).toHaveLength(measureText(text).parts)
      for (const { coding, data } of parts) {
        const header = parts.length > 1 ? 6 : 0
        expect(header + (coding === 'gsm' ? Math.ceil((data.length * 7 + (header ? 1 : 0)) / 8) : data.length)).toBeLessThanOrEqual(140)
      }
    }))
  })
})

describe('the carrier', () => {
  const world = () => new World(joinPath(folder, `w${Math.random()}`))
  const book = new NumberBook(joinPath(folder, 'book'), world(), async () => {})
  beforeAll(async () => (await book.open())())
  const wish = { from: LINES[0]!.number, to: '+18085550142', text: 'Hi', tables: NO_TABLES, pictures: [], confirmsOptOut: false }

  it.each([
    [{ from: '+15035550999' }, 'sender-unknown'],
    [{ to: '808 555 0142' }, 'recipient-unknown'],
    [{ to: '+447700900123' }, 'country-not-allowed'],
    [{ to: '+19025550161' }, 'country-not-allowed'],
    [{ from: '+447700900118', to: '+441174960123' }, 'recipient-not-mobile'],
    [{ text: '' }, 'bad-request'],
    [{ text: 'a'.repeat(1531) }, 'too-long'],
  ])('refuses %j as a real one would: %s', (values, code) => {
    expect(refusalOf({ ...wish, ...values }, world(), book)).toMatchObject({ code })
  })

  it('keeps a list of its own of numbers that opted out, and lets one confirming text pass', async () => {
    const here = world()
    await here.record({ do: 'opt', number: wish.to, out: true })
    expect(refusalOf(wish, here, book)).toMatchObject({ code: 'recipient-opted-out' })
    expect(refusalOf({ ...wish, confirmsOptOut: true }, here, book)).toBeNull()
  })

  it('counts its price by the part', () => {
    const unit = PRICES.find(price => price.country === 'US')!.microsPerPart
    expect(priceOf({ ...wish, text: 'a'.repeat(161) })).toEqual({ parts: 2, price: { micros: 2 * unit, currency: 'USD' } })
  })

  it('knows what it took and what handsets received after a crash, and cuts off half a line', async () => {
    const here = joinPath(folder, 'crash')
    const before = new World(here)
    const text: SentText = {
      id: 'a',
      key: 'k',
      from: wish.from,
      to: wish.to,
      text: 'Hi',
      parts: 1,
      price: { micros: 1, currency: 'USD' },
      at: 1,
      confirmsOptOut: false,
    }
    await before.record({ do: 'accept', text })
    await before.record({ do: 'arrive', handset: wish.to, part: cut('Hi', 1)[0]!, from: wish.from, id: 'a', at: 2 })
    appendFileSync(joinPath(here, 'carrier', 'journal.jsonl'), '{"do":"acc')
    const after = new World(here)
    expect(after.byKey.get('k')).toEqual(text)
    expect(after.handsets.get(wish.to)).toEqual([expect.objectContaining({ text: 'Hi' })])
    expect(after.unfinished()).toEqual([text])
    await after.record({ do: 'arrive', handset: wish.to, part: cut('Hi', 1)[0]!, from: wish.from, id: 'a', at: 3 })
    expect(new World(here).handsets.get(wish.to)).toHaveLength(1)
  })

  it('has given the lines that the demo company uses', () => {
    expect(LINES.map(line => line.number).sort()).toEqual(DEMO_LINES.map(line => line.e164).sort())
  })
})
