import { readFileSync } from 'node:fs'
import { carriersFor, exchangeFor } from '~~/server/tellers/all'
import { readSettings, SETTING_NAMES } from '~~/server/settings'

const SECRETS = { PLAUDER_CARRIER_KEY: 'k'.repeat(24), PLAUDER_WEBHOOK_SECRET: Buffer.alloc(24, 7).toString('base64') }

describe('the settings', () => {
  it('have a value where one can be thought of, and what is empty is not set', () => {
    expect(readSettings({ PLAUDER_KEEP_FREE_MB: '', DATABASE_URL: '' })).toMatchObject({
      PLAUDER_DATA: '.data',
      PLAUDER_KEEP_FREE_MB: 64,
      PLAUDER_CATCH_UP_MS: 30_000,
      PLAUDER_LOG: 'info',
    })
    expect(readSettings({}).DATABASE_URL).toBeUndefined()
    expect(readSettings({ PLAUDER_KEEP_FREE_MB: '128' }).PLAUDER_KEEP_FREE_MB).toBe(128)
  })

  it.each([
    [{ PLAUDER_KEEP_FREE_MB: 'much' }, 'PLAUDER_KEEP_FREE_MB is no number'],
    [{ PLAUDER_KEEP_FREE_MB: '-1' }, 'PLAUDER_KEEP_FREE_MB is less than 0'],
    [{ PLAUDER_CATCH_UP_MS: '0.5' }, 'PLAUDER_CATCH_UP_MS is no whole number'],
    [{ DATABASE_URL: 'mysql://127.0.0.1/plauder' }, 'DATABASE_URL is no address such as postgres://'],
    [{ PLAUDER_LOG: 'loud' }, 'PLAUDER_LOG is no level of a log'],
    [{ PLAUDER_PRACTICE: 'maybe' }, 'PLAUDER_PRACTICE is neither on nor off'],
    [{ ...SECRETS, PLAUDER_WEBHOOK_SECRET: Buffer.from('secret').toString('base64') }, 'PLAUDER_WEBHOOK_SECRET is too short'],
    [{ ...SECRETS, PLAUDER_CARRIER_KEY: 'k' }, 'PLAUDER_CARRIER_KEY is too short'],
    [{ PLAUDER_LOG: 'loud', PLAUDER_PRACTICE: 'maybe' }, 'PLAUDER_PRACTICE is neither on nor off. PLAUDER_LOG'],
  ])('with %j nothing starts, and it is said which is wrong', (env, words) => {
    expect(() => readSettings(env)).toThrow(words)
  })

  it('are all explained for whoever runs Plauder', () => {
    const explained = readFileSync('docs/operating.md', 'utf8')
    expect(SETTING_NAMES.filter(name => !explained.includes(`\`${name}\``))).toEqual([])
  })
})

describe('the practice world', () => {
  it.each(['PLAUDER_CARRIER_KEY', 'PLAUDER_WEBHOOK_SECRET'])('is not spoken to without %s', (name) => {
    expect(() => carriersFor(readSettings({ ...SECRETS, [name]: '' }))).toThrow(`${name} is not set`)
  })

  it('is there unless it is left out, and then nothing takes its place', () => {
    const [kept, out] = [readSettings(SECRETS), readSettings({ PLAUDER_PRACTICE: 'off' })]
    expect([carriersFor(kept).map(({ name }) => name), exchangeFor(kept)?.name]).toEqual([['practice'], 'practice'])
    expect([carriersFor(out), exchangeFor(out)]).toEqual([[], null])
  })
})
