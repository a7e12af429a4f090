import { isStillFrom } from '~~/core/template/kinship'

const BODY = 'Hi {{ person.first_name }}, {{ sender.first_name }} from Pannier here. Is {{ trial.day | date: "weekday" }} still good for the trial? Parking is behind the bakery.'

describe('whether a text still is a template’s', () => {
  it.each([
    ['as it was filled', 'Hi Iris, Ada from Pannier here. Is Friday still good for the trial? Parking is behind the bakery.', true],
    ['with a word before and after it', 'Good morning! Hi Iris, Ada from Pannier here. Is Friday still good for the trial? Parking is behind the bakery. See you!', true],
    ['shortened by its last sentence', 'Hi Iris, Ada from Pannier here. Is Friday still good for the trial?', true],
    ['with words of its own in all places', 'Hi Iris, can you call me back about the invoice? Thanks, Ada from Pannier', false],
    ['with nothing left', 'On my way', false],
    ['with one word many times', 'the the the the the the the', false],
  ])('%s', (_how, text, is) => expect(isStillFrom(text, BODY)).toBe(is))

  it('counts one of fields alone, which has no words to go by', () => {
    expect(isStillFrom('Anything', '{{ person.first_name }} {{ person.city }}')).toBe(true)
  })
})
