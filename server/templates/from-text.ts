import { asWritten } from '~~/core/template/fill'
import { toLiquid } from '~~/core/template/pieces'
import { toFields } from '~~/core/template/unfill'
import type { SignedIn } from '../identity/sign-in'
import { authorize } from '../records/one'
import { valuesFor } from './values'

/** A text to somebody as a template: their values, the sender's and the firm's are fields again. */
export async function templateFrom(asker: SignedIn, recordId: string, text: string): Promise<{ body: string }> {
  const found = await authorize(asker, 'record.see', recordId)
  const { values, clock } = await valuesFor(asker, found, [], { aboutId: null, ref: null })
  const said = (['person', 'company', 'sender', 'firm'] as const).flatMap(group =>
    Object.entries(values[group] ?? {}).flatMap(([key, value]) => typeof value === 'string' ? [{ path: `${group}.${key}`, value: asWritten(value, clock) }] : []))
  return { body: toLiquid(toFields(text, said)) }
}
