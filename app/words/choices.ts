import { showPhone } from '~~/core/phone/show'
import type { LineChoice } from '~~/shared/composer'
import type { RecordPhone } from '~~/shared/record'

export interface Choice { id: string, label: string, note: string, disabled: boolean }

/** A record's numbers to text; what cannot be chosen says why. */
export function numberChoices(phones: RecordPhone[]): Choice[] {
  return phones.map((phone) => {
    const why = whyNotTexted(phone)
    return { id: phone.id, label: phone.e164 ? showPhone(phone.e164, true) : phone.typed, note: why ?? phone.label, disabled: why !== null }
  })
}

export function whyNotTexted(phone: RecordPhone): string | null {
  if (!phone.e164) return 'cannot be used'
  if (phone.consent.texts === 'refused') return 'has opted out'
  if (phone.kind === 'landline') return 'landline, calls only'
  return null
}

/** My lines for a number's country; what cannot be chosen says why. */
export function lineChoices(lines: LineChoice[], country: string | null): Choice[] {
  return lines.map((line) => {
    const why = !line.active ? 'not active' : country && line.country !== country ? `texts within ${line.country} only` : null
    return { id: line.id, label: `${line.name}, ${showPhone(line.e164, true)}`, note: why ?? (line.mine ? 'yours alone' : ''), disabled: why !== null }
  })
}

/** The line used last with this number, else a shared one for its country, else any that may. */
export function chooseLine(choices: Choice[], last: string | undefined): string | null {
  const open = choices.filter(choice => !choice.disabled)
  return (open.find(choice => choice.id === last) ?? open.find(choice => choice.note === '') ?? open[0])?.id ?? null
}
