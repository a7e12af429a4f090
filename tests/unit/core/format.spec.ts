import { formatFor, formatOf, formatOfCountry, sayTime } from '~~/core/hours/format'
import { calendarDay, markMoment, markTime, sayMomentsIn, sayWallMoment } from '~~/core/hours/say'
import { readTime, readTypedDay } from '~~/core/hours/typed'
import { AMERICAN, BRITISH } from '../../support/clocks'

describe('how people of a language write times and days', () => {
  // Unicode CLDR: time cycle and day order of each (common practice where CLDR is not at hand)
  it.each([
    ['en-US', AMERICAN],
    ['en-GB', BRITISH],
    ['de-DE', BRITISH],
    ['en-AU', { hours: 12, dayFirst: true }],
    ['ja-JP', { hours: 24, dayFirst: false }],
  ])('%s', (locale, format) => {
    expect(formatOf(locale)).toEqual(format)
  })

  it('takes a locale that is none for the runtime’s own', () => {
    expect(formatOf('no such thing')).toEqual(formatOf(Intl.DateTimeFormat().resolvedOptions().locale))
  })

  it('of a country is that of the language most of its people speak', () => {
    expect(formatOfCountry('US')).toEqual(AMERICAN)
    expect(formatOfCountry('GB')).toEqual(BRITISH)
    expect(formatOfCountry('AT')).toEqual(BRITISH)
  })

  it('gives way to what was chosen, each by itself', () => {
    expect(formatFor({ hours: 24, dayFirst: null }, 'en-US')).toEqual({ hours: 24, dayFirst: false })
    expect(formatFor({ hours: null, dayFirst: true }, 'en-US')).toEqual({ hours: 12, dayFirst: true })
  })
})

describe('saying them', () => {
  it.each([
    ['00:05', '0:05', '12:05 am'],
    ['09:30', '9:30', '9:30 am'],
    ['12:00', '12:00', '12:00 pm'],
    ['23:59', '23:59', '11:59 pm'],
    ['24:00', '24:00', '12:00 am'],
  ])('%s', (time, british, american) => {
    expect(sayTime(time, BRITISH)).toBe(british)
    expect(sayTime(time, AMERICAN)).toBe(american)
  })

  it('says a day, its year only where it is another one', () => {
    expect(calendarDay('2026-12-03', BRITISH)).toBe('Thu 3 Dec 2026')
    expect(calendarDay('2026-12-03', AMERICAN)).toBe('Thu, Dec 3, 2026')
    const moment = { wallTime: '2026-12-01T15:30', zone: 'Pacific/Honolulu' }
    expect(sayWallMoment(moment, 2026, BRITISH)).toBe('15:30 Honolulu time on Tue 1 Dec')
    expect(sayWallMoment(moment, 2025, AMERICAN)).toBe('3:30 pm Honolulu time on Tue, Dec 1, 2026')
  })

  it('finds the moments of a sentence that is read by several, and nothing else', () => {
    const moment = markMoment({ wallTime: '2026-12-01T09:00', zone: 'America/Argentina/Buenos_Aires' })
    const sentence = `Call back ${moment}, the next day at ${markTime('14:00')}, from 2026-11-30. T4 and T25:00 and R10:3 stay.`
    expect(sayMomentsIn(sentence, 2026, AMERICAN)).toBe(
      'Call back 9:00 am Buenos Aires time on Tue, Dec 1, the next day at 2:00 pm, from Mon, Nov 30, 2026. T4 and T25:00 and R10:3 stay.',
    )
  })
})

describe('reading what people type', () => {
  it.each([
    ['15:30', '15:30'],
    ['1530', '15:30'],
    ['9', '09:00'],
    ['9.15', '09:15'],
    ['15h05', '15:05'],
    ['3:30 pm', '15:30'],
    ['3p', '15:00'],
    ['12 a.m.', '00:00'],
    ['12:10pm', '12:10'],
    ['25', null],
    ['13 pm', null],
    ['9:75', null],
    ['soon', null],
    ['', null],
  ])('the time %p', (typed, time) => {
    expect(readTime(typed)).toBe(time)
  })

  // 30 November 2026 is a Monday
  it.each([
    ['2026-12-03', '2026-12-03'],
    ['3 Dec', '2026-12-03'],
    ['Dec 3', '2026-12-03'],
    ['Thu 3 Dec 2026', '2026-12-03'],
    ['Thu, Dec 3, 2026', '2026-12-03'],
    ['3. december 2027', '2027-12-03'],
    ['29 Nov', '2027-11-29'],
    ['today', '2026-11-30'],
    ['Tomorrow', '2026-12-01'],
    ['fri', '2026-12-04'],
    ['Monday', '2026-12-07'],
    ['30 Feb', null],
    ['31 June 2027', null],
    ['th', null],
    ['someday', null],
    ['', null],
  ])('the day %p', (typed, day) => {
    expect(readTypedDay(typed, BRITISH, '2026-11-30')).toBe(day)
  })

  it('takes figures in the reader’s own order', () => {
    expect(readTypedDay('3/12/2026', BRITISH, '2026-11-30')).toBe('2026-12-03')
    expect(readTypedDay('3/12/2026', AMERICAN, '2026-11-30')).toBe('2026-03-12')
  })

  it('reads back whatever is said, in either format', () => {
    for (const format of [BRITISH, AMERICAN]) {
      for (const day of ['2026-01-31', '2026-05-01', '2028-02-29', '2026-12-03'])
        expect(readTypedDay(calendarDay(day, format), format, '2026-11-30')).toBe(day)
      for (const time of ['00:00', '00:59', '12:00', '12:30', '13:05', '23:59'])
        expect(readTime(sayTime(time, format))).toBe(time)
    }
  })
})
