import fc from 'fast-check'
import { isLineOpen } from '~~/core/hours/line-hours'
import { wallTime } from '~~/core/hours/wall'
import { zoneRules } from '~~/core/hours/zones'
import { peaksOf } from '~~/core/sound/peaks'

describe('the shape of a sound', () => {
  it('has the loudest moment of each stretch', () => {
    expect(peaksOf([0.1, -0.5, 0.2, 0, 0, 0.996], 3)).toEqual([0.5, 0.2, 1])
    expect(peaksOf([0.5], 240)).toEqual([0.5])
    expect(peaksOf([], 240)).toEqual([])
  })

  it('misses nothing and makes nothing louder', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 500 }),
        fc.integer({ min: 1, max: 60 }),
        (samples, bars) => {
          const peaks = peaksOf(samples, bars)
          expect(peaks).toHaveLength(Math.min(bars, samples.length))
          expect(Math.max(...peaks)).toBeCloseTo(Math.max(...samples.map(Math.abs)), 1)
        },
      ),
    )
  })
})

describe('the hours of a line', () => {
  it('are those of its own clock, from the opening on and up to the closing', () => {
    const zone = zoneRules('America/Los_Angeles')!
    const hours = { opens: '08:00', closes: '18:30', days: [1, 2, 3, 4, 5] }
    expect(isLineOpen(null, zone, 0)).toBe(true)
    expect(
      [
        ['2026-11-25T15:59Z', false],
        ['2026-11-25T16:00Z', true],
        ['2026-11-26T02:29Z', true],
        ['2026-11-26T02:30Z', false],
        ['2026-11-28T20:00Z', false],
      ].map(([at]) => isLineOpen(hours, zone, Date.parse(String(at)))),
    ).toEqual([false, true, true, false, false])
    fc.assert(fc.property(fc.date({ min: new Date('2026-01-01'), max: new Date('2027-12-31'), noInvalidDate: true }), (date) => {
      expect(isLineOpen({ opens: '00:00', closes: '24:00', days: [wallTime(zone, date.getTime()).weekday] }, zone, date.getTime())).toBe(
        true,
      )
    }))
  })
})
