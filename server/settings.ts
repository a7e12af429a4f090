import { number, object, string, ValidationError, type InferType } from 'yup'
import { PlainError } from './log/failure'

/** Fewer bytes than this can be guessed. */
const FEWEST_BYTES = 24

const whole = (least: number, most: number) =>
  number().typeError('is no number').integer('is no whole number').min(least, `is less than ${least}`).max(most, `is more than ${most}`)
const secret = (bytesOf: (value: string) => number) =>
  string()
    .test('long', `is too short: ${FEWEST_BYTES} bytes at least`, (value = '') => value === '' || bytesOf(value) >= FEWEST_BYTES)
    .default('')
const address = (...protocols: string[]) =>
  string().test(
    'url',
    `is no address such as ${protocols[0]}//127.0.0.1:4401`,
    value => !value || (URL.canParse(value) && protocols.includes(new URL(value).protocol)),
  )

/** Everything that the environment says to Plauder, explained in docs/operating.md; a test holds the two alike. */
const SETTINGS = object({
  PLAUDER_DATA: string().default('.data'),
  PLAUDER_BUILD: string(),
  DATABASE_URL: address('postgres:', 'postgresql:'),
  PLAUDER_PRACTICE: string().oneOf(['on', 'off'], 'is neither on nor off').default('on'),
  PLAUDER_CARRIER_URL: address('http:', 'https:').default('http://127.0.0.1:4401'),
  PLAUDER_CARRIER_KEY: secret(value => Buffer.byteLength(value)),
  PLAUDER_WEBHOOK_SECRET: secret(value => Buffer.from(value, 'base64').length),
  PLAUDER_SEAL_KEY: string().test(
    'length',
    'is no key: 32 bytes in base64 (openssl rand -base64 32 makes one)',
    value => !value || Buffer.from(value, 'base64').length === 32,
  ),
  PLAUDER_METRICS_TOKEN: secret(value => Buffer.byteLength(value)),
  PLAUDER_SMTP_URL: address('smtp:', 'smtps:'),
  PLAUDER_MAIL_FROM: string().matches(/@/, 'has no address in it').default('Plauder <plauder@localhost>'),
  PLAUDER_HOME: address('http:', 'https:').default('http://127.0.0.1:3000'),
  PLAUDER_TRUSTED_PROXIES: string().default(''),
  PLAUDER_KEEP_FREE_MB: whole(0, 1_000_000).default(64),
  PLAUDER_CATCH_UP_MS: whole(100, 3_600_000).default(30_000),
  PLAUDER_LONGEST_STATEMENT_MS: whole(1_000, 3_600_000).default(60_000),
  PLAUDER_LOG: string().oneOf(['trace', 'debug', 'info', 'warn', 'error', 'fatal', 'silent'], 'is no level of a log').default('info'),
  PLAUDER_CRASH_AT: string(),
})

export type Settings = InferType<typeof SETTINGS>

export const SETTING_NAMES = Object.keys(SETTINGS.fields)

/**
 * Reads the environment. What is empty is not set.
 *
 * @throws PlainError that names what is wrong and with which setting
 */
export function readSettings(env: Record<string, string | undefined>): Settings {
  const given = Object.fromEntries(SETTING_NAMES.flatMap(name => env[name] ? [[name, env[name]]] : []))
  try {
    return SETTINGS.validateSync(given, { abortEarly: false })
  }
  catch (error) {
    if (!(error instanceof ValidationError)) throw error
    throw new PlainError(
      error.inner.map(({ path, errors }) => `${path} ${errors.join(', ')}.`).join(' ') + ' docs/operating.md says what each setting means.',
    )
  }
}

let read: Settings | null = null

/** The settings of this process, read once. */
export const settings = (): Settings => read ??= readSettings(process.env)
