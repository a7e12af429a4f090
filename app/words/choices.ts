import { proposeLine, type ProposedFor } from '~~/core/lines/proposed'
import { showPhone } from '~~/core/phone/show'
import type { LineChoice } from '~~/shared/composer'
import type { RecordPhone } from '~~/shared/record'

export interface Choice { id: string, label: string, note: string, disabled: boolean }
export interface LineOption extends Choice { e164: string, mine: boolean, private: boolean }

/** A record's numbers to text; what cannot be chosen says why. */
export function numberChoices(phones: RecordPhone[]): Choice[] {
  return phones.map((phone) => {
    const why = whyNotTexted(phone)
    const number = phone.e164 ? showPhone(phone.e164, true) : phone.typed
    return {
      id: phone.id,
      label: phone.person ? `${phone.person.name}, ${number}` : number,
      note: why ?? phone.label,
      disabled: why !== null,
    }
  })
}

export function whyNotTexted(phone: RecordPhone): string | null {
  if (!phone.e164) return 'cannot be used'
  if (phone.consent.texts === 'refused') return 'has opted out'
  if (phone.kind === 'landline') return 'landline, calls only'
  return null
}

/** My lines for a number's country; what cannot be chosen says why. */
export function lineChoices(lines: LineChoice[], country: string | null): LineOption[] {
  return lines.map((line) => {
    const why = !line.active ? 'not in use' : country && line.country !== country ? `texts within ${line.country} only` : null
    return {
      id: line.id,
      label: `${line.name}, ${showPhone(line.e164, true)}`,
      note: why ?? (line.mine ? 'yours alone' : ''),
      disabled: why !== null,
      e164: line.e164,
      mine: line.mine,
      private: line.private,
    }
  })
}

/** Few, for they stand beside the line in the composer's head. */
export const PROPOSED_WORDS: Record<ProposedFor, string> = {
  'used-last': 'used last',
  'own-area': 'yours, near them',
  'team-area': 'near them',
  'team': 'your team’s',
  'own': 'yours',
}

/** The line that is proposed for a number, of those that may, and why. */
export function chooseLine(options: LineOption[], e164: string | null, last: string | undefined): { id: string, why: ProposedFor } | null {
  const proposed = proposeLine(options.filter(option => !option.disabled), e164, last)
  return proposed && { id: proposed.line.id, why: proposed.why }
}
