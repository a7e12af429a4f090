import fc from 'fast-check'
import { gatherSame, isAlike, topicsOf } from '~~/core/request/same'

const gather = (...words: string[]) => {
  const { same, alone, other } = gatherSame(words.map((one, i) => ({ id: String(i), words: one })))
  return { same: Object.fromEntries(same.map(({ topic, word, ids }) => [topic ?? `“${word}”`, ids.map(Number)])), alone: alone.map(Number), other: other.map(Number) }
}

describe('the same question', () => {
  it('is known by its topic, in whatever words', () => {
    expect(gather(
      'Hi! What time does it start?', 'when is it on', 'Sounds good. Which day?', 'Um wie viel Uhr?', 'À quelle heure ?', '¿A qué hora empieza?',
      'And where is it?', 'What’s the address', 'How do I get there?',
    ).same).toEqual({ when: [0, 1, 2, 3, 4, 5], where: [6, 7, 8] })
  })

  it('is in both where two things are asked for', () => {
    expect(gather('When and where?', 'What time?', 'Where?').same).toEqual({ when: [0, 1], where: [0, 2] })
  })

  it.each([
    ['where can i park?', ['parking']],
    ['how much is it an hour?', ['pay']],
    ['how long does it take?', ['how-long']],
    ['where did you get my number?', ['who']],
    ['how much does it cost?', ['cost']],
    ['do you sell soap?', []],
  ])('%s is about %j', (question, topics) => {
    expect(topicsOf(question)).toEqual(topics)
  })

  it('is known by a word that they share, spelt one way or the other', () => {
    expect(gather('Is there a discount for two?', 'Do you give discounts?', 'Any disount if I bring nobody?', 'Is it dog friendly?', 'Can I take my dogs?', 'Do you ship to Guam?'))
      .toEqual({ same: { '“discount”': [0, 1, 2], '“dog”': [3, 4] }, alone: [5], other: [] })
  })

  it('is not what somebody says without asking', () => {
    expect(gather('I’ll come when I can.', 'See you where we met last time', 'Yes please', '')).toEqual({ same: {}, alone: [], other: [0, 1, 2, 3] })
  })

  it('is one only where two ask it', () => {
    expect(gather('What time?', 'Where?')).toEqual({ same: {}, alone: [0, 1], other: [] })
  })

  const words = fc.constantFrom('when', 'where', 'is', 'it', 'discount', 'discounts', 'soap', 'a', 'the', 'park', '?', '.', 'yes', 'how much', 'münze', 'ok')
  const text = fc.array(words, { maxLength: 8 }).map(all => all.join(' '))

  it('leaves nobody out, and is the same in whatever order they are read', () => {
    fc.assert(fc.property(fc.array(text, { maxLength: 12 }), fc.nat(), (texts, turn) => {
      const asked = texts.map((one, i) => ({ id: String(i), words: one }))
      const found = gatherSame(asked)
      expect(new Set([...found.same.flatMap(({ ids }) => ids), ...found.alone, ...found.other])).toEqual(new Set(asked.map(({ id }) => id)))
      expect(found.same.every(({ ids }) => ids.length >= 2 && new Set(ids).size === ids.length)).toBe(true)
      const by = turn % Math.max(1, asked.length)
      const again = gatherSame([...asked.slice(by), ...asked.slice(0, by)])
      const sets = ({ same }: typeof found) => same.map(({ topic, word, ids }) => `${topic ?? word}: ${[...ids].sort().join(' ')}`).sort()
      expect(sets(again)).toEqual(sets(found))
    }))
  })

  it('takes words for one that differ by an ending or a slip, and no others', () => {
    for (const [a, b] of [['discount', 'discounts'], ['voucher', 'vouchr'], ['appointment', 'apointmant'], ['soap', 'soaps']] as const) expect(isAlike(a, b)).toBe(true)
    for (const [a, b] of [['soap', 'soup'], ['park', 'part'], ['car', 'cart'], ['may', 'maybe']] as const) expect(isAlike(a, b)).toBe(false)
  })
})
