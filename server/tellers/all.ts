import { practiceExchange } from '../calling/practice-exchange'
import type { Exchange } from '../calling/port'
import { PlainError } from '../log/failure'
import type { Settings } from '../settings'
import { practiceCarrier, type PracticeAccess } from '../carriers/practice'
import type { Carrier } from '../carriers/port'

/**
 * Every carrier that this Plauder can use. A new one is a file with its adapter, and a line here.
 *
 * @throws PlainError where a secret is missing: without it anybody could say what somebody has texted
 */
export const carriersFor = (settings: Settings): Carrier[] =>
  settings.PLAUDER_PRACTICE === 'on' ? [practiceCarrier(practiceAccess(settings))] : []

export const exchangeFor = (settings: Settings): Exchange | null =>
  settings.PLAUDER_PRACTICE === 'on' ? practiceExchange(practiceAccess(settings)) : null

function practiceAccess({ PLAUDER_CARRIER_URL, PLAUDER_CARRIER_KEY, PLAUDER_WEBHOOK_SECRET }: Settings): PracticeAccess {
  for (const [name, value] of Object.entries({ PLAUDER_CARRIER_KEY, PLAUDER_WEBHOOK_SECRET })) {
    if (!value)
      throw new PlainError(
        `${name} is not set, and without it anybody could speak for the practice carrier. bin/start makes one; elsewhere set it, or set PLAUDER_PRACTICE=off.`,
      )
  }
  return { url: PLAUDER_CARRIER_URL, key: PLAUDER_CARRIER_KEY, webhookSecret: PLAUDER_WEBHOOK_SECRET }
}
