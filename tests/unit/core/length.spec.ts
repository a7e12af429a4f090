import fc from 'fast-check'
import { makeFiller } from '~~/core/template/fill'
import { count, emptyTally, together, usualParts, usualUnits, type LengthTally } from '~~/core/template/length'
import { measureText } from '~~/core/text/measure'
import { clockIn } from '../../support/clocks'

interface Person { id: string, name: string, first: string | null }
const fill = makeFiller('Hi {{ person.first_name }}, we bring the bikes on Thursday.')
const tallyOf = (people: Person[]): LengthTally => {
  const tally = emptyTally()
  for (const { first, ...person } of people) count(tally, person, fill({ person: { first_name: first } }, clockIn('UTC')))
  return tally
}
const person = fc.record({
  id: fc.uuid(),
  name: fc.constantFrom('Iris', 'Wren'),
  first: fc.option(fc.string({ unit: fc.constantFrom(...'abé'), minLength: 0, maxLength: 200 })),
})

describe('the length over many people', () => {
  it('counts each once, by parts and units, or by what is missing', () => {
    const tally = tallyOf([
      { id: '1', name: 'Iris', first: 'Iris' },
      { id: '2', name: 'Bo', first: 'Bo' },
      { id: '3', name: 'Nobody', first: null },
      { id: '4', name: 'Long', first: 'x'.repeat(150) },
      { id: '5', name: 'Żaneta', first: 'Żaneta' },
    ])
    expect(tally).toMatchObject({
      people: 5,
      heldPeople: 1,
      parts: { 1: 3, 2: 1 },
      dear: 1,
      held: { 'person.first_name': { people: 1, some: [{ id: '3' }] } },
      shortest: { name: 'Bo' },
      longest: { name: 'Long', parts: 2 },
    })
    expect(tally.most.map(({ name }) => name)).toEqual(['Long', 'Żaneta', 'Iris', 'Bo'])
    expect(usualParts(tally)).toEqual({ parts: 1, more: 1 })
    expect(usualUnits(tally)).toBe(measureText('Hi Iris, we bring the bikes on Thursday.').units)
    expect([usualParts(emptyTally()), usualUnits(emptyTally())]).toEqual([null, null])
  })

  it('is the same however the people are split', () => {
    fc.assert(fc.property(fc.array(person, { maxLength: 40 }), fc.nat(40), (people, at) => {
      const whole = tallyOf(people)
      const joined = together(tallyOf(people.slice(0, at)), tallyOf(people.slice(at)))
      // who is named first among equals depends on the order; how many does not
      const counts = ({ most, held, shortest, longest, ...rest }: LengthTally) => ({
        ...rest,
        most: most.map(({ units, parts }) => [parts, units]),
        held: Object.fromEntries(Object.entries(held).map(([reason, one]) => [reason, one.people])),
        shortest: shortest?.units,
        longest: longest?.units,
      })
      expect(counts(joined)).toEqual(counts(whole))
      expect(whole.people).toBe(Object.values(whole.parts).reduce((sum, n) => sum + n, 0) + whole.heldPeople)
    }))
  })
})
