import fc from 'fast-check'
import { answersByHour, busiestHour, expected, pacedTo, waitsForAnswers, type Brought } from '~~/core/plan/answers'
import { countBetween, type PlanRun } from '~~/core/plan/run'

const HOUR = 3_600_000
const MINUTE = 60_000
const run = (people: number, everyMs: number, from = 0): PlanRun => ({ groupId: 'g', lineId: 'l', from, everyMs, people })
const tenths = (...minutes: number[]) => minutes.map(one => one * MINUTE)
/** A fifth of two hundred, the first of them within a minute, the last after ten hours. */
const FIFTH: Brought = { texted: 200, answered: 40, delays: tenths(1, 2, 4, 8, 15, 30, 60, 120, 300, 600) }

describe('how many answers come', () => {
  it('is what similar texts have brought, with its interval; and unknown where there were hardly any', () => {
    expect(expected(FIFTH).share).toBe(0.2)
    // Wilson, 40 of 200: worked out by hand with z = 1.96
    expect(expected(FIFTH).low).toBeCloseTo(0.1504, 3)
    expect(expected(FIFTH).high).toBeCloseTo(0.2609, 3)
    const unknown = expected(null)
    expect(expected({ ...FIFTH, texted: 10, answered: 9 })).toEqual(unknown)
    expect(unknown.low).toBeLessThan(unknown.share)
    expect(unknown.high).toBeGreaterThan(2 * unknown.share)
  })

  it('comes to as many as answer, hour by hour, and is what going through the texts one by one gives', () => {
    const delayOf = (place: number) => {
      const at = place * FIFTH.delays.length
      const [whole, part] = [Math.floor(at), at % 1]
      const before = whole === 0 ? 0 : FIFTH.delays[whole - 1]!
      return before + part * (FIFTH.delays[whole]! - before)
    }
    fc.assert(fc.property(fc.integer({ min: 1, max: 400 }), fc.integer({ min: 1_000, max: 5 * MINUTE }), (people, everyMs) => {
      const plan = [run(people, everyMs), run(people, everyMs, 5 * HOUR)]
      const hours = answersByHour(plan, FIFTH)
      expect(hours.reduce((sum, { answers }) => sum + answers, 0)).toBeCloseTo(2 * people * 0.2, 6)
      // each text one by one, its answer at a hundred places of how long answers take
      const plainly = hours.map(() => 0)
      for (const { from } of plan)
        for (let i = 0; i < people; i++)
          for (let place = 0; place < 100; place++) {
            const hour = Math.floor((from + i * everyMs + delayOf((place + 0.5) / 100)) / HOUR)
            plainly[Math.min(hour, hours.length - 1)]! += 0.2 / 100
          }
      // what leaves within five minutes counts as leaving at once
      hours.forEach(({ answers }, i) => expect(Math.abs(answers - plainly[i]!)).toBeLessThan(0.06 * people * 0.2 + 0.5))
    }), { numRuns: 60 })
  })

  it('is most where most texts leave, with what it may as well be', () => {
    const plan = [run(10, MINUTE), run(600, 1_000, 12 * HOUR)]
    const busiest = busiestHour(plan, FIFTH)!
    expect(busiest.from).toBe(12 * HOUR)
    expect(busiest.low).toBeLessThan(busiest.likely)
    expect(busiest.high).toBeGreaterThan(busiest.likely)
    expect(busiest.high).toBeLessThan(120)
    expect(busiestHour([], FIFTH)).toBeNull()
  })
})

describe('a pace by answers', () => {
  it('brings no more of them than can be worked off, over however many lines', () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 200 }), fc.integer({ min: 1, max: 4 }), (anHour, lines) => {
      const everyMs = pacedTo(anHour, lines, FIFTH)
      const texts = lines * countBetween(run(1_000_000, everyMs), 0, 10 * HOUR)
      expect(texts * 0.2 / 10).toBeLessThanOrEqual(anHour + 1)
      expect(texts * 0.2 / 10).toBeGreaterThan(anHour * 0.98 - 1)
    }))
  })

  it('waits once an hour of work has piled up, until half of it is done, and does not stop and go in between', () => {
    expect(waitsForAnswers(false, 19, 20)).toBe(false)
    expect(waitsForAnswers(false, 20, 20)).toBe(true)
    expect(waitsForAnswers(true, 11, 20)).toBe(true)
    expect(waitsForAnswers(true, 10, 20)).toBe(false)
  })
})
