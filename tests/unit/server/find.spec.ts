import { sql } from 'drizzle-orm'
import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { spellingsOf } from '~~/core/text/plain'
import { ask } from '~~/server/db/door'
import { findRecords } from '~~/server/records/find'
import { addNote } from '~~/server/timeline/note'
import { findSaid } from '~~/server/timeline/find'
import { sendText } from '~~/server/texting/send'
import { useDatabase } from '../../support/database'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  await makeLead(firm.mika, { firstName: 'Holly', lastName: 'Marsh', mail: 'front.desk@thistle.example', city: 'Hilo' }, '808 555 0171')
  await makeLead(firm.ada, { firstName: 'Marsha', lastName: 'Quill', city: 'Kona' }, '(206) 555-0172')
  await makeLead(firm.ada, { firstName: 'Tamar', lastName: 'Shore' }, 'ask 99 17 44')
  await makeLead(firm.ada, { firstName: 'Jörg', lastName: 'Müller', postcode: 'V6B 1A1' }, '604 555 0173')
  await makeLead(firm.ada, { firstName: 'Ana', lastName: 'Weiß-López', tags: ['hilly rounds'] }, '604 555 0174')
  await makeLead(firm.ada, { firstName: 'Søren', lastName: 'Aas' }, '604 555 0175')
})

const names = async (words: string, who = firm.ada) => (await findRecords(who, words)).map(row => row.name)
const said = async (words: string, who = firm.ada) => (await findSaid(who, words)).map(hit => hit.words)

describe('finding people and companies', () => {
  it.each([
    ['holly', ['Holly Marsh']],
    ['MARSH holl', ['Holly Marsh']],
    ['holly hilo', ['Holly Marsh']],
    ['holly kona', []],
    ['thistle', ['Holly Marsh']],
    ['front.desk@', ['Holly Marsh']],
    ['0171', ['Holly Marsh']],
    ['808-555-0171', ['Holly Marsh']],
    ['+1 808 555 0171', ['Holly Marsh']],
    ['2065550172', ['Marsha Quill']],
    ['99 17 44', ['Tamar Shore']],
    ['jorg', ['Jörg Müller']],
    ['jörg mueller', ['Jörg Müller']],
    ['muller', ['Jörg Müller']],
    ['weiss', ['Ana Weiß-López']],
    ['LOPEZ', ['Ana Weiß-López']],
    ['lopez weiß', ['Ana Weiß-López']],
    ['lóp', ['Ana Weiß-López']],
    ['müll', ['Jörg Müller']],
    ['soeren', ['Søren Aas']],
    ['soren', ['Søren Aas']],
    ['åås', ['Søren Aas']],
    ['v6b1a1', ['Jörg Müller']],
    ['V6B 1A1', ['Jörg Müller']],
    ['hilly', ['Ana Weiß-López']],
    ['01', []],
    ['', []],
    ['100%', []],
    ['_____', []],
  ])('%j finds %j', async (words, found) => {
    expect(await names(words)).toEqual(found)
  })

  it('puts a name that begins so before one that holds it, and mine before another\'s', async () => {
    expect(await names('marsh')).toEqual(['Marsha Quill', 'Holly Marsh'])
    expect(await names('mar')).toEqual(['Marsha Quill', 'Holly Marsh', 'Tamar Shore'])
  })

  it('shows nothing that one may not see', async () => {
    expect(await names('marsh', firm.noor)).toEqual([])
    expect(await names('0171', firm.noor)).toEqual([])
  })
})

describe('finding what was said', () => {
  beforeAll(async () => {
    const { recordId, phoneId } = await makeLead(firm.ada, { firstName: 'Said' })
    await addNote(firm.ada, recordId, { id: uuid(), words: 'Wants the Cargotrike, with rain cover' }, DAY)
    await sendText(firm.ada, textTo(phoneId, firm.portland, { text: 'The cargotrike is in on Thursday' }), later(DAY, 1_000))
    await sendText(firm.ada, textTo(phoneId, firm.own, { text: 'Between us: the cargotrike is dented' }), later(DAY, 2_000))
  })

  it('goes by whole words and the beginning of the last, newest first', async () => {
    expect(await said('cargotri')).toEqual([
      'Between us: the cargotrike is dented',
      'The cargotrike is in on Thursday',
      'Wants the Cargotrike, with rain cover',
    ])
    expect(await said('cargotrike rain')).toEqual(['Wants the Cargotrike, with rain cover'])
    expect(await said('argotrike')).toEqual([])
  })

  it('keeps what went over a private line to its owner, and what is another team\'s to them', async () => {
    expect(await said('cargotrike', firm.mika)).toEqual(['The cargotrike is in on Thursday', 'Wants the Cargotrike, with rain cover'])
    expect(await said('cargotrike', firm.noor)).toEqual([])
  })

  it.each(['', 'a', '\'', '& | ! :*', '\\', 'rain\' & cover'])('takes anything that is typed: %j', async (words) => {
    await expect(findSaid(firm.ada, words)).resolves.toBeDefined()
  })
})

it('spells words in the database as in core', async () => {
  const letters = 'aÄäößÜüåÅøØæŒđÐłþıİéèñçãőžŞµΣςЖй𝒜'
  await fc.assert(fc.asyncProperty(fc.string({ unit: fc.constantFrom(...letters, ' ', '-', '\u0301'), maxLength: 20 }), async (words) => {
    const { rows: [spelt] } = await ask<{ plain: string, out: string }>(sql`select plain_words(${words}) as plain, spelt_out(${words}) as out`)
    expect([...new Set([spelt!.plain, spelt!.out])]).toEqual(spellingsOf(words))
  }), { numRuns: 300 })
})
