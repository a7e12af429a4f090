import type { Bind, CarrierStateShown, LongTexts } from '~~/shared/carriers'
import { ago } from './time'

export const BIND_WORDS: Record<Bind, string> = {
  transceiver: 'Once, for both ways (transceiver)',
  pair: 'Twice, for one way each (transmitter and receiver)',
}

export const LONG_TEXT_WORDS: Record<LongTexts, string> = {
  header: 'In parts, with a header in each (UDH)',
  fields: 'In parts, numbered by fields beside them (sar_*)',
  whole: 'Whole, the carrier cuts it (message_payload)',
}

/** Whether a carrier can be reached, in words. */
export function sayState({ is, since, why }: CarrierStateShown, now: number): string {
  if (is === 'connected') return `Connected, for ${ago(since, now).replace(/ ago$/, '')}`
  if (is === 'connecting') return 'Connecting…'
  return why ?? 'It cannot be reached.'
}
