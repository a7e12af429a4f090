import { PlainError } from './http/failure'
import type { PracticeAccess } from './carriers/practice'

/** Fewer bytes than this can be guessed. */
const FEWEST_BYTES = 24

/**
 * What Plauder and its carrier know and nobody else does. There are no others to fall back on: with a secret that
 * stands in a source anybody could say what somebody has texted.
 *
 * @throws PlainError, which names what is missing and how to get it
 */
export function readSecrets(env: Record<string, string | undefined>): PracticeAccess {
  return {
    url: env.PLAUDER_CARRIER_URL ?? 'http://127.0.0.1:4401',
    key: secret(env, 'PLAUDER_CARRIER_KEY', value => value.length),
    webhookSecret: secret(env, 'PLAUDER_WEBHOOK_SECRET', value => Buffer.from(value, 'base64').length),
  }
}

function secret(env: Record<string, string | undefined>, name: string, lengthOf: (value: string) => number): string {
  const value = env[name] ?? ''
  if (lengthOf(value) >= FEWEST_BYTES) return value
  throw new PlainError(`${name} is ${value ? 'too short' : 'not set'}, and without it anybody could speak for the carrier. bin/start makes one; elsewhere set it to what your carrier gave you (at least ${FEWEST_BYTES} bytes).`)
}
