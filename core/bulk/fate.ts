import { nearestFirst } from '../phone/nearest'
import type { PhoneKind } from '../phone/kinds'

/** Why somebody cannot get the text, by what is looked at first. */
export const LEFT_OUT_REASONS = [
  'no-number', 'not-usable', 'landline', 'opted-out', 'open-wish', 'no-line', 'no-pictures', 'answered', 'same-number', 'other-audience', 'own-words-old', 'empty-field', 'too-long',
  'zone-unknown', 'never-in-hours', 'after-event',
] as const
export type LeftOutReason = typeof LEFT_OUT_REASONS[number]

/** Which of somebody's numbers is texted: a mobile before any other, the one from which they wrote or called last, or one with a label. */
export const NUMBER_WAYS = ['mobile', 'answered', 'label'] as const
export type NumberWay = typeof NUMBER_WAYS[number]

/** Whether a text can reach a number at all, whatever its owner wants. */
export const takesTexts = ({ e164, unusable, kind }: Pick<NumberFacts, 'e164' | 'unusable' | 'kind'>): boolean =>
  e164 !== null && !unusable && kind !== 'landline'

/** One of a person's numbers, as far as it matters for a text. Instants are epoch milliseconds. */
export interface NumberFacts {
  phoneId: string
  label: string
  /** Null for one that could not be read. */
  e164: string | null
  country: string | null
  kind: PhoneKind
  /** It is not in service, or somebody else's. */
  unusable: boolean
  optedOut: boolean
  /** What may be a wish to get no texts, on which nobody has decided yet. */
  openWish: boolean
  lastHeardAt: number | null
  /** The line over which we spoke last; null if over none. */
  usualLineId: string | null
}

export type Picked<T extends NumberFacts = NumberFacts> = T & { e164: string }

/**
 * The number on which somebody is texted.
 *
 * Whoever has refused texts on one of their numbers is not texted on another one: they meant us, and not the telephone.
 *
 * @param label of which one comes first, in whatever case; where none has it, a mobile does
 * @param ownId the one that was chosen for them alone: it comes first if it can be texted
 */
export function pickNumber<T extends NumberFacts>(
  numbers: T[], { way, label = '' }: { way: NumberWay, label?: string }, ownId: string | null = null,
): Picked<T> | LeftOutReason {
  if (numbers.length === 0) return 'no-number'
  const usable = numbers.filter((one): one is Picked<T> => one.e164 !== null && !one.unusable)
  if (usable.length === 0) return 'not-usable'
  if (usable.some(({ optedOut }) => optedOut)) return 'opted-out'
  if (usable.some(({ openWish }) => openWish)) return 'open-wish'
  const texted = usable.filter(({ kind }) => kind !== 'landline')
  if (texted.length === 0) return 'landline'
  const own = texted.find(({ phoneId }) => phoneId === ownId)
  if (own) return own
  const rank = (one: Picked<T>) => {
    if (way === 'answered') return -(one.lastHeardAt ?? 0)
    if (way === 'label' && one.label.trim().toLowerCase() === label.trim().toLowerCase()) return -1
    return one.kind === 'mobile' ? 0 : 1
  }
  // a stable sort: among equals the order of the record decides
  return [...texted].sort((a, b) => rank(a) - rank(b))[0]!
}

export interface BulkLine { id: string, e164: string, country: string, shared: boolean }

/**
 * The line over which somebody is texted: the one over which we spoke last, else the nearest of those in their country.
 *
 * @param lines those that may be used
 * @param drawn from 0 to below 1: whoever has no usual one gets any of those in their country by it, so that each of them has its share
 * @returns null where none of them texts to that country
 */
export function pickLine<T extends BulkLine>(lines: T[], { e164, country, usualLineId }: Picked, drawn: number | null = null): T | null {
  const there = lines.filter(line => line.country === country)
  const usual = there.find(({ id }) => id === usualLineId)
  if (usual) return usual
  return (drawn === null ? nearestFirst(there, e164)[0] : there[Math.floor(drawn * there.length)]) ?? null
}
