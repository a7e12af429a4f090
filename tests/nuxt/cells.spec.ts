import '../support/app'
import type { RecordRow } from '~~/shared/record'
import type { ListColumn } from '~~/shared/list'
import { cell, ownField } from '~/words/cells'
import { joining, listWords, sayCondition } from '~/words/conditions'
import { amount, amounts } from '~/words/money'
import { sayDifference } from '~/words/shares'
import { GROUP_WORDS, sayField } from '~/words/template'

const NOW = Date.parse('2026-11-25T18:00:00Z')
const row = {
  name: 'Iris Holm',
  company: { id: 'c', name: 'Holm & Daughters', sector: 'bakery' },
  owner: { id: 'a', name: 'Ada Lund' },
  stage: 'Trial',
  over: false,
  phone: '+18085550142',
  tags: ['fair', 'bakery'],
  lastContactAt: NOW - 180_000,
  madeAt: NOW - 86_400_000 * 3,
  optedOut: true,
  pipeline: null,
  city: 'Honolulu',
  fields: { bikes: '4', currency: 'GBP', budget: 640 },
} as unknown as RecordRow
const shown = (key: string, of: RecordRow = row, shows = 'text') => cell(of, { key, shows } as never, NOW)

describe('a cell of a list', () => {
  it.each([
    ['company', 'Holm & Daughters'],
    ['owner', 'Ada Lund'],
    ['phone', '+1 808 555 0142'],
    ['tags', 'fair, bakery'],
    ['last-contact', '3 min ago'],
    ['opted-out', 'opted out'],
    ['pipeline', ''],
    ['over', ''],
    ['own.bikes', '4'],
    ['own.gone', ''],
  ])('of %s', (key, words) => {
    expect(shown(key)).toBe(words)
  })

  it('has a number that cannot be used as it was typed', () => {
    expect(shown('phone', { ...row, phone: 'ask reception' })).toBe('ask reception')
    expect(shown('phone', { ...row, phone: null })).toBe('')
  })

  it.each([
    ['date', '2026-12-04', 'Fri 4 Dec 2026'],
    ['money', 640, '£640'],
    ['number', 12_500, '12,500'],
    ['yes-no', true, 'yes'],
    ['yes-no', 'false', 'no'],
    ['text', 0, '0'],
  ])('of a field of one’s own, a %s', (shows, value, words) => {
    expect(ownField(value, { shows } as never, row.fields)).toBe(words)
  })

  it.each([null, undefined, ''])('has nothing for %p', (value) => {
    expect(ownField(value, { shows: 'money' } as never, {})).toBeNull()
  })
})

describe('money, in words', () => {
  it.each([
    [7_680, 'USD', '$7,680'],
    [12.5, 'CAD', 'C$12.50'],
    [640, 'GBP', '£640'],
    [90, 'SEK', 'SEK 90'],
    [90, null, '90'],
  ])('%d %s', (value, currency, words) => {
    expect(amount(value, currency)).toBe(words)
  })

  it('of several currencies is not added up', () => {
    expect(amounts([{ amount: 12_400, currency: 'USD' }, { amount: 640, currency: 'GBP' }])).toBe('$12,400, £640')
  })
})

describe('conditions, in words', () => {
  const columns = [
    { key: 'stage', label: 'Stage', choices: [{ value: 'trial', label: 'Trial' }] },
    { key: 'last-contact', label: 'Last contact' },
    { key: 'opted-out', label: 'Opted out' },
  ] as unknown as ListColumn[]
  it.each([
    [{ field: 'stage', test: 'one-of', value: ['trial', 'Offer', 'New'] }, 'stage is Trial, Offer or New'],
    [{ field: 'last-contact', test: 'not-for-days', value: 30 }, 'last contact is longer ago than 30 days, or never was'],
    [{ field: 'last-contact', test: 'after', value: '2026-12-04' }, 'last contact is after Fri 4 Dec 2026'],
    [{ field: 'opted-out', test: 'yes' }, 'opted out'],
    [{ field: 'opted-out', test: 'no' }, 'not opted out'],
    [{ field: 'stage', test: 'empty' }, 'stage is empty'],
    [{ field: 'budget', test: 'at-least', value: 1_500 }, 'budget is at least 1,500'],
    [{ field: 'city', test: 'contains', value: 'hono' }, 'city contains “hono”'],
  ])('%j', (condition, words) => {
    expect(sayCondition(condition as never, columns)).toBe(words)
  })

  it('are joined as they are meant', () => {
    expect([joining('all'), joining('any'), listWords([]), listWords(['one'])]).toEqual(['and', 'or', '', 'one'])
  })
})

describe('templates, in words', () => {
  it.each([
    ['person.first_name', 'first name'],
    ['sender.name', 'my name'],
    ['firm.name', 'our firm'],
    ['company.name', 'company'],
    ['company.city', 'company city'],
    ['deal.value', 'deal value'],
    ['fill_in.day', 'day'],
  ])('%s', (path, words) => {
    expect(sayField(path)).toBe(words)
  })

  it('name every group of fields', () => {
    expect([GROUP_WORDS.sender, GROUP_WORDS.deal]).toEqual(['Whoever sends', 'Deal'])
  })

  const version = (version: number, answered: number, waited: number) => ({ version, answered, waited }) as never
  it.each([
    [version(1, 3, 10), version(2, 4, 10), /^Whether version 1 or 2 brings more answers cannot be told yet/],
    [version(1, 900, 1_000), version(2, 100, 1_000), /^Version 1 brings more answers than version 2, by \d+ to \d+ of a hundred/],
    [version(1, 100, 1_000), version(2, 900, 1_000), /^Version 2 brings more answers than version 1/],
    [version(1, 0, 0), version(2, 9, 10), /^There is nothing to compare yet/],
  ])('say of two versions no more than the numbers bear', (one, other, words) => {
    expect(sayDifference(one, other)).toMatch(words)
  })
})
