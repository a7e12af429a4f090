import { linesOf } from '../texting/lines'
import type { SignedIn } from '../identity/sign-in'
import { phonesOf } from '../records/phones'
import type { StoredCall } from './stored'

/** To which number and from which line a call's text goes, or why to none. */
export interface TextTarget { phoneId: string | null, e164: string | null, lineId: string | null, lineName: string | null, problem: string | null }

export const NO_TARGET: TextTarget = { phoneId: null, e164: null, lineId: null, lineName: null, problem: null }

/** The number that was called, if it takes texts, else the first that does; from the line of the call, else one of mine in that country. */
export async function textTarget(asker: SignedIn, call: StoredCall): Promise<TextTarget> {
  const phones = call.recordId ? await phonesOf(asker, [call.recordId]) : []
  const takesTexts = phones.filter(one => one.e164 !== null && one.kind !== 'landline')
  const phone = takesTexts.find(one => one.e164 === call.other) ?? takesTexts[0]
  if (!phone) return { ...NO_TARGET, problem: 'There is no number that takes texts.' }
  if (phone.consent.texts === 'refused') return { ...NO_TARGET, e164: phone.e164, problem: 'This number has opted out of texts.' }
  const lines = (await linesOf(asker)).filter(one => one.active && one.country === phone.country)
  const line = lines.find(one => one.id === call.lineId) ?? lines.find(one => !one.private) ?? lines[0]
  if (!line) return { ...NO_TARGET, e164: phone.e164, problem: `No line of yours texts ${phone.country}.` }
  return { phoneId: phone.id, e164: phone.e164, lineId: line.id, lineName: line.name, problem: null }
}
