import { LEAST_LIKENESS, likeness, nearestSample } from '~~/core/papers/likeness'
import { differ, missingFrom, NO_PAPERS, waitOf, type Papers } from '~~/core/papers/papers'

const WHOLE: Papers = {
  ...NO_PAPERS,
  firm: 'Pannier & Post Ltd', address: '4 Swan Quay', country: 'US', contact: 'Rafe', mail: 'rafe@pannier.example',
  about: 'Trial weeks', agree: 'A box on the form', samples: ['One', 'Two'],
}

describe('how alike two texts are', () => {
  // Lin, "ROUGE: A Package for Automatic Evaluation of Summaries" (2004), the example of section 3.1; from memory. Both have four
  // words, so the F-measure is the share itself.
  it.each([
    ['police kill the gunman', 3 / 4],
    ['the gunman kill police', 2 / 4],
    ['the gunman police killed', 2 / 4],
  ])('is that of the published example: %s', (other, share) => {
    expect(likeness('police killed the gunman', other)).toBeCloseTo(share)
  })

  it('is one for the same words, whatever stands between them, and none where there are none', () => {
    expect(likeness('Your bike is ready.', 'YOUR BIKE — is ready!')).toBe(1)
    expect([likeness('', 'Your bike'), likeness('Your bike', '…')]).toEqual([0, 0])
  })

  it('takes no time to speak of for the longest there are', () => {
    const long = Array.from({ length: 3_000 }, (_, i) => `word${i}`).join(' ')
    expect(likeness(long, long)).toBe(1)
  })
})

describe('the sample nearest to a template', () => {
  const SAMPLES = [
    'Hi [first name], Ada from Pannier & Post. Thank you for asking about a trial week. When may I ring you this week?',
    'Hi {{first name}}, Mika from Pannier & Post. Your bike is ready. You can pick it up at {{place}}.',
  ]

  it('is found by the template’s own words, not by what it fills in', () => {
    const found = nearestSample('Hi {{ person.first_name }}, {{ sender.first_name }} from {{ firm.name }}. Your bike is ready. You can pick it up at {{ fill_in.place }}.', SAMPLES)!
    expect(found.sample).toBe(SAMPLES[1])
    expect(found.likeness).toBeGreaterThan(0.7)
  })

  it('is far from one that says something else', () => {
    expect(nearestSample('Last chance! Win a holiday, answer YES today.', SAMPLES)!.likeness).toBeLessThan(LEAST_LIKENESS)
    expect(nearestSample('anything', [])).toBeNull()
  })
})

describe('papers', () => {
  it('lack what a carrier asks for', () => {
    expect(missingFrom(NO_PAPERS)).toEqual(['firm', 'address', 'country', 'contact', 'mail', 'about', 'agree', 'samples'])
    expect(missingFrom(WHOLE)).toEqual([])
    expect(missingFrom({ ...WHOLE, agree: '  ', samples: ['One'] })).toEqual(['agree', 'samples'])
  })

  it('are others once anything of them is', () => {
    expect(differ(WHOLE, { ...WHOLE })).toBe(false)
    expect(differ(WHOLE, { ...WHOLE, samples: ['Two', 'One'] })).toBe(true)
    expect(differ(WHOLE, { ...WHOLE, brand: 'Pannier' })).toBe(true)
  })
})

describe('papers that wait', () => {
  const DAY = 86_400_000
  it.each([
    [-1, { days: 0, late: false }],
    [9.9 * DAY, { days: 9, late: false }],
    [15 * DAY, { days: 15, late: false }],
    [16 * DAY, { days: 16, late: true }],
  ])('have waited for whole days, and too long only after the usual ones: %d', (since, wait) => {
    expect(waitOf({ handedAt: 1_000_000, mostDays: 15 }, 1_000_000 + since)).toEqual(wait)
  })
})
