import { isGroup, type Conditions } from '../conditions/conditions'
import type { FieldValue } from '../fields/value'

/** What of a record anybody can set: a tag, a choice, a yes. */
export type Mirrored = { what: 'tag', tag: string } | { what: 'field', key: string, value: Exclude<FieldValue, null> }

/** How the key of a condition begins that asks for a field of the module's own. */
const OWN = 'own.'

/**
 * What a record has exactly if conditions hold for it, where they ask for one such thing and no other. A group by these is a
 * mirror: whoever is put into it gets the tag or the choice, and whoever gets that is in it.
 *
 * @returns null where they ask for anything else
 */
export function mirroredBy({ of }: Conditions): Mirrored | null {
  const [only, ...others] = of
  if (!only || others.length > 0) return null
  if (isGroup(only)) return mirroredBy(only)
  const { field, test, value } = only
  const key = field.startsWith(OWN) ? field.slice(OWN.length) : null
  if (test === 'yes') return key === null ? null : { what: 'field', key, value: true }
  const [wanted, ...more] = test === 'one-of' && Array.isArray(value) ? value : []
  if (wanted === undefined || more.length > 0) return null
  if (field === 'tags') return { what: 'tag', tag: wanted }
  return key === null ? null : { what: 'field', key, value: wanted }
}
