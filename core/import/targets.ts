import type { FieldKind } from '../template/fields'
import { readPhone } from '../phone/read'

/** Something that a column of a file can become. */
export interface ImportTarget {
  key: string
  label: string
  kind: FieldKind | 'number-of-phone' | 'tags' | 'country' | 'colleague' | 'note' | 'opted-out' | 'people' | 'matter'
  options?: string[]
}

/** Several columns may become one of these; of mail addresses the first stands on the record, the others in its note. */
export const takesSeveral = ({ key, kind }: Pick<ImportTarget, 'key' | 'kind'>): boolean =>
  kind === 'number-of-phone' || kind === 'tags' || kind === 'note' || kind === 'people' || key === 'mail'

/** What each column becomes: keys of targets, null for what is left out. */
export type Matching = (string | null)[]

/** A heading without what people write it with: `E-Mail (work)` is `emailwork`. */
export const plainHeading = (heading: string): string =>
  heading
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '')

/** How columns are headed elsewhere (common practice of address books and spreadsheets). */
const OTHER_WORDS: Record<string, string[]> = {
  'first-name': ['first', 'firstname', 'givenname', 'forename', 'vorname', 'prenom', 'nombre'],
  'last-name': ['last', 'lastname', 'surname', 'familyname', 'nachname', 'nom', 'apellido', 'apellidos'],
  'name': ['fullname', 'displayname', 'contact', 'contactname', 'person', 'businessname', 'companyname'],
  'company': ['organization', 'organisation', 'business', 'firm', 'account', 'employer', 'companyname', 'firma', 'empresa', 'societe'],
  'title': ['role', 'jobtitle', 'position', 'function'],
  'mail': ['email', 'mail', 'emailaddress', 'mailaddress', 'emailhome', 'emailwork', 'primaryemail',
    'secondmailaddress', 'secondaryemail', 'otheremail'],
  'phone': [
    'phone',
    'telephone',
    'tel',
    'phonenumber',
    'number',
    'mobile',
    'mobilephone',
    'mobilenumber',
    'cell',
    'cellphone',
    'cellular',
    'workphone',
    'work',
    'businessphone',
    'homephone',
    'home',
    'othernumber',
    'otherphone',
    'primaryphone',
    'telefon',
    'handy',
    'movil',
    'telefono',
    'telephoneportable',
  ],
  'street': ['address', 'streetaddress', 'addressline'],
  'city': ['town', 'place', 'locality', 'ort', 'ville', 'ciudad'],
  'region': ['state', 'province', 'county', 'stateprovince', 'stateorprovince'],
  'postcode': ['zip', 'zipcode', 'postalcode', 'plz', 'codepostal'],
  'country': ['countryregion', 'land', 'pays', 'pais'],
  'zone': ['timezone'],
  'stage': ['status', 'leadstatus', 'step'],
  'owner': ['assignedto', 'responsible', 'accountowner', 'leadowner', 'salesperson'],
  'tags': ['tag', 'labels', 'categories', 'category', 'groups', 'keywords'],
  'opted-out': ['optout', 'optedout', 'smsoptout', 'unsubscribed', 'donottext', 'notexts', 'stop'],
  'note': ['notes', 'comment', 'comments', 'remarks', 'description'],
  'people': ['person', 'people', 'contact', 'contacts', 'contactname', 'customer', 'candidate', 'attendees', 'participants'],
  'about': ['deal', 'dealname', 'opportunity', 'job', 'case', 'relatedto', 'regarding'],
  'own.value': ['amount', 'dealvalue', 'worth'],
  'own.expected': ['closedate', 'expectedclose', 'expectedclosedate', 'closingdate'],
  'own.day': ['date', 'duedate', 'startdate', 'enddate'],
}

const MOSTLY = 0.7

/**
 * What the columns of a file most likely are: as somebody has matched the same headings before, else by
 * what they are called, else by what is in them.
 *
 * @param samples a few rows
 * @param remembered by plain heading
 */
export function guessMatching(
  headings: string[],
  samples: string[][],
  targets: ImportTarget[],
  remembered: Record<string, string | null>,
  country: string,
): Matching {
  const taken = new Set<string>()
  const free = (key: string | null | undefined) => {
    const target = targets.find(one => one.key === key)
    return target && (takesSeveral(target) || !taken.has(target.key)) ? target : null
  }
  const matching: Matching = headings.map(() => null)
  const settled = headings.map(() => false)
  const settle = (index: number, key: string | null) => {
    matching[index] = key
    settled[index] = true
    if (key) taken.add(key)
  }
  headings.forEach((heading, i) => {
    const before = remembered[plainHeading(heading)]
    if (before === null) settle(i, null)
    else if (free(before)) settle(i, before!)
  })
  headings.forEach((heading, i) => {
    const named = settled[i] ? null : targets.find(target => isCalled(heading, target) && free(target.key))
    if (named) settle(i, named.key)
  })
  headings.forEach((_, i) => {
    const key = settled[i] ? null : byContent(samples.map(row => row[i] ?? '').filter(Boolean), country)
    if (key && free(key)) settle(i, key)
  })
  return matching
}

function isCalled(heading: string, { key, label }: ImportTarget): boolean {
  const plain = plainHeading(heading)
  // "Mobile 2" is one more of them
  const called = [plainHeading(label), plainHeading(key), ...OTHER_WORDS[key] ?? []]
  return called.includes(plain) || called.includes(plain.replace(/\d+$/, ''))
}

function byContent(cells: string[], country: string): string | null {
  if (cells.length === 0) return null
  const share = (holds: (cell: string) => boolean) => cells.filter(holds).length / cells.length
  if (share(cell => /^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(cell)) >= MOSTLY) return 'mail'
  if (share(cell => /^[\d\s()+./-]{7,}$/.test(cell) && readPhone(cell, country).ok) >= MOSTLY) return 'phone'
  return null
}
