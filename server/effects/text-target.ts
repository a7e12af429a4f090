import { proposeLine } from '~~/core/lines/proposed'
import { phonesOf } from '../records/phones'
import { linesOf } from '../texting/lines'
import type { Occasion } from './effect'

/** To which number and from which line a text goes, or why to none. */
export interface TextTarget {
  phoneId: string | null
  e164: string | null
  lineId: string | null
  lineName: string | null
  problem: string | null
}

const NO_TARGET: TextTarget = { phoneId: null, e164: null, lineId: null, lineName: null, problem: null }

/** The number with which it happened, if it takes texts, else the first that does; from the same line, else the one proposed for it. */
export async function textTarget({
  asker,
  record,
  remote,
  lineId,
}: Pick<Occasion, 'asker' | 'record' | 'remote' | 'lineId'>): Promise<TextTarget> {
  const takesTexts = (await phonesOf(asker, [record.id])).filter(one => one.e164 !== null && one.kind !== 'landline')
  const phone = takesTexts.find(one => one.e164 === remote) ?? takesTexts[0]
  if (!phone) return { ...NO_TARGET, problem: 'There is no number that takes texts.' }
  if (phone.consent.texts === 'refused') return { ...NO_TARGET, e164: phone.e164, problem: 'This number has opted out of texts.' }
  const lines = (await linesOf(asker)).filter(one => one.active && one.country === phone.country)
  const line = proposeLine(lines, phone.e164, lineId ?? undefined)?.line
  if (!line) return { ...NO_TARGET, e164: phone.e164, problem: `No line of yours texts ${phone.country}.` }
  return { phoneId: phone.id, e164: phone.e164, lineId: line.id, lineName: line.name, problem: null }
}
