import type { FieldGroup } from '~~/core/template/fields'
import { MODULE_FACTS, MODULES } from '~~/shared/modules'

/** Whose fields a list is of. */
export const GROUP_WORDS: Record<FieldGroup, string> = {
  ...Object.fromEntries(MODULES.map(module => [module, MODULE_FACTS[module].one])) as Record<FieldGroup, string>,
  person: 'The person',
  company: 'Their company',
  sender: 'Whoever sends',
  firm: 'Our firm',
  message: 'The text itself',
  fill_in: 'Filled in when it is sent',
}

const SHORT: Partial<Record<FieldGroup, string>> = {
  person: '',
  sender: 'my',
  fill_in: '',
  message: '',
  firm: 'our firm',
  company: 'company',
}

/** A field by its path, where its label is not at hand: `person.first_name` is “first name”. */
export function sayField(path: string): string {
  const [group, key = ''] = path.split('.')
  const words = key.replaceAll('_', ' ')
  const whose = SHORT[group as FieldGroup] ?? group!
  // a firm and a company are called by what they are
  return words === 'name' && (group === 'firm' || group === 'company') ? whose : [whose, words].filter(Boolean).join(' ')
}
