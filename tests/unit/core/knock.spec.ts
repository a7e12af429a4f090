import { nextStep } from '~~/core/knock/steps'
import { asksSomething } from '~~/core/request/asks'

describe('a question in a text', () => {
  it.each([
    'Is the trike still free?', 'how much is it a month', 'Thanks. And when can you deliver', 'Hi! can you bring two', 'Call me tomorrow at 3',
    'Wann kann ich vorbeikommen', 'Können Sie zwei bringen', 'Gibt es das auch in Grün', 'C’est combien', 'combien par mois', 'Puis-je passer demain',
    '¿Cuánto cuesta?', 'cuanto cuesta', 'y cuándo puede venir', '他有吗？', 'هل هو متاح؟', 'Really?!', '(is that right?)',
  ])('is in: %s', text => expect(asksSomething(text)).toBe(true))

  it.each([
    'Thanks, that works', 'What a lovely bike', 'Was für ein Rad', 'See https://pannier.example/bikes?colour=green', 'I know how much it is', 'Comme d’habitude',
    'ok', '', 'Whichever you like', 'Where I live it rains',
  ])('is not in: %s', text => expect(asksSomething(text)).toBe(false))
})

describe('what nobody takes', () => {
  const candidates = { 'owner': [], 'stand-in': ['mika'], 'lead': ['odile', 'rafe'] }

  it('goes on to the stand-in, then to the lead, then nowhere', () => {
    expect(nextStep('owner', ['ada'], candidates)).toEqual({ step: 'stand-in', whom: ['mika'] })
    expect(nextStep('stand-in', ['ada', 'mika'], candidates)).toEqual({ step: 'lead', whom: ['odile', 'rafe'] })
    expect(nextStep('lead', ['ada', 'mika', 'odile', 'rafe'], candidates)).toBeNull()
  })

  it('passes over a step that adds nobody', () => {
    expect(nextStep('owner', ['ada', 'mika'], candidates)).toEqual({ step: 'lead', whom: ['odile', 'rafe'] })
    expect(nextStep('owner', ['ada'], { ...candidates, 'stand-in': [] })).toEqual({ step: 'lead', whom: ['odile', 'rafe'] })
    expect(nextStep('owner', ['odile'], { 'owner': [], 'stand-in': [], 'lead': ['odile'] })).toBeNull()
  })
})
