import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { job, moneyAccount } from '~~/server/db/schema'
import { eq } from 'drizzle-orm'
import { registerCarrier } from '~~/server/carriers/registry'
import { countAnswer } from '~~/server/metrics/registry'
import { showMetrics } from '~~/server/metrics/show'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, type Firm } from '../../support/firm'
import { cookieOf } from '../../support/routes'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

const tokenOf = async (who: Firm['rafe']) => (await cookieOf(who)).split('=')[1]!.split(';')[0]!
const shown = async () => showMetrics({ signIn: await tokenOf(firm.rafe) }, new Date())
const valueOf = (text: string, series: string) => {
  const line = text.split('\n').find(one => one.startsWith(`${series} `))
  return line === undefined ? undefined : Number(line.slice(series.length + 1))
}

/** The grammar of OpenMetrics 1.0, as far as it is used here: what is said of a family, its samples, and an end. */
const LABELS = String.raw`\{[a-zA-Z_]\w*="(?:[^"\\\n]|\\["\\n])*"(?:,[a-zA-Z_]\w*="(?:[^"\\\n]|\\["\\n])*")*\}`
const LINE = new RegExp(String.raw`^(?:# (?:TYPE [a-zA-Z_:][\w:]* (?:counter|gauge|histogram|summary|info|unknown)|HELP [a-zA-Z_:][\w:]* .*|UNIT .*)|[a-zA-Z_:][\w:]*(?:${LABELS})? (?:[+-]?(?:\d+(?:\.\d+)?(?:[eE][+-]?\d+)?|Inf)|NaN)(?: \d+(?:\.\d+)?)?)$`)

describe('metrics', () => {
  it('are in the format of OpenMetrics, with its end and its type', async () => {
    countAnswer('GET', '/api/records/:id', 200, 0.03)
    const { type, text } = await shown()
    expect(type).toMatch(/^application\/openmetrics-text; version=1\.0\.0/)
    expect(text.endsWith('# EOF\n')).toBe(true)
    const lines = text.split('\n').slice(0, -2)
    expect(lines.filter(line => !LINE.test(line))).toEqual([])
    // each family is told in one piece, counters end with _total
    const families = lines.flatMap(line => /^# TYPE (\S+) /.exec(line)?.[1] ?? [])
    expect(new Set(families).size).toBe(families.length)
    for (const [, name] of text.matchAll(/^# TYPE (\S+) counter$/gm)) expect(text).toMatch(new RegExp(`^${name}_total[ {]`, 'm'))
  })

  it('tell how the house stands, and of answers by route', async () => {
    fakeCarrier()
    registerCarrier({ ...fakeCarrierAway, name: 'smpp-away' })
    await tx(async (database) => {
      await database.delete(job)
      const values = { kind: 'hand-over', lane: 'a', orderAt: DAY, dueAt: later(new Date(), -90_000) }
      await database.insert(job).values([
        { ...values, id: uuid(), key: 'due' },
        { ...values, id: uuid(), key: 'dead', deadAt: DAY },
        { ...values, id: uuid(), key: 'later', dueAt: later(new Date(), 3_600_000) },
        { ...values, id: uuid(), key: 'done', doneAt: DAY },
      ])
      await database.update(moneyAccount).set({ prepaid: true, balanceMicros: 5_000_000, heldMicros: 500_000 }).where(eq(moneyAccount.currency, 'USD'))
    })
    countAnswer('POST', '/api/texts', 422, 0.2)
    const { text } = await shown()
    expect([
      valueOf(text, 'plauder_jobs{kind="hand-over",state="due"}'),
      valueOf(text, 'plauder_jobs{kind="hand-over",state="broken"}'),
      valueOf(text, 'plauder_jobs{kind="hand-over",state="later"}'),
    ]).toEqual([1, 1, 1])
    expect(valueOf(text, 'plauder_oldest_due_job_seconds')).toBeGreaterThanOrEqual(90)
    expect(valueOf(text, 'plauder_oldest_due_job_seconds')).toBeLessThan(3_000)
    expect(valueOf(text, 'plauder_carrier_up{carrier="practice"}')).toBe(1)
    expect(valueOf(text, 'plauder_carrier_up{carrier="smpp-away"}')).toBe(0)
    expect(valueOf(text, 'plauder_balance{currency="USD"}')).toBe(4.5)
    expect(valueOf(text, 'plauder_colleagues')).toBe(5)
    expect(valueOf(text, 'plauder_http_request_seconds_count{method="POST",route="/api/texts",status="422"}')).toBe(1)
    await tx(database => database.delete(job))
  })

  it('name nobody: no name, number, mail or word of anybody', async () => {
    const { text } = await shown()
    for (const { name, mail } of [firm.ada, firm.mika, firm.rafe]) for (const word of [name, mail]) expect(text).not.toContain(word)
    expect(text).not.toContain(firm.portland.e164)
  })

  it('are for an admin, or whoever has the token; for nobody else', async () => {
    const now = new Date()
    await expect(showMetrics({}, now)).rejects.toMatchObject({ details: { status: 401 } })
    await expect(showMetrics({ signIn: await tokenOf(firm.odile) }, now)).rejects.toMatchObject({ details: { status: 403 } })
    await expect(showMetrics({ authorization: 'Bearer ' }, now)).rejects.toMatchObject({ details: { status: 401 } })
    await expect(showMetrics({ authorization: `Bearer ${process.env.PLAUDER_METRICS_TOKEN}x` }, now)).rejects.toMatchObject({ details: { status: 401 } })
    await expect(showMetrics({ authorization: `Bearer ${process.env.PLAUDER_METRICS_TOKEN}` }, now)).resolves.toMatchObject({ type: expect.any(String) })
  })
})

const fakeCarrierAway = {
  name: '',
  title: 'Away',
  hand: () => Promise.reject(new Error('away')),
  readEvent: () => {
    throw new TypeError('nothing')
  },
  state: () => ({ is: 'away' as const, since: 0, why: null }),
}
