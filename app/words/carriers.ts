import type { Bind, CarrierKind, CarrierStateShown, CarrierWay, LongTexts } from '~~/shared/carriers'
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

export const KIND_WORDS: Record<CarrierKind, string> = {
  smpp: 'SMPP 3.4, the protocol of SMS centres',
  http: 'Signed HTTP, as our open description says',
}

/** How one gets to a carrier, in a line. */
export function wayWords(way: CarrierWay): string {
  if (way.kind === 'http') return `Signed HTTP, at ${way.settings.url}.`
  const { systemId, host, port, tls } = way.settings
  return `SMPP 3.4, ${systemId} at ${host}:${port}${tls ? '' : ', without TLS'}.`
}

/** A secret for signing as the Standard Webhooks specification has them: 32 random bytes. */
export const madeSecret = (): string => `whsec_${btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(32))))}`

/** Whether a carrier can be reached, in words. */
export function sayState({ is, since, why }: CarrierStateShown, now: number): string {
  if (is === 'connected') return `Connected, for ${ago(since, now).replace(/ ago$/, '')}`
  if (is === 'connecting') return 'Connecting…'
  return why ?? 'It cannot be reached.'
}
