import { plainAmount } from '../fields/amount'
import { readFieldValue } from '../fields/value'
import { readPhone, type PhoneKind, type PhoneReading, type UnusableReason } from '../phone/read'
import { readCountry } from '../places/countries'
import { readDay, type DayOrder } from './days'
import type { ImportTarget, Matching } from './targets'

/** How the rows of a file are read. */
export interface ReadingRules {
  /** Whether rows are people, whose names have two parts. */
  people: boolean
  headings: string[]
  matching: Matching
  targets: ImportTarget[]
  /** Of numbers that name none, and of addresses without one. */
  country: string
  /** By column, for columns of days. */
  dayOrders: (DayOrder | null)[]
}

export interface ImportedPhone {
  label: string
  typed: string
  e164: string | null
  country: string | null
  kind: PhoneKind
  extension: string | null
  unusable: UnusableReason | null
}

/** A row of a file as the record that it wants to be. What is null was not said. */
export interface ImportedRow {
  name: string
  /** Common columns of a record by their key: `first-name`, `city`, `stage`, `owner` and the like. */
  columns: Record<string, string>
  /** The module's own fields. */
  fields: Record<string, string | number | boolean>
  phones: ImportedPhone[]
  tags: string[]
  /** Who is on it, as the file calls them: by mail address, number or name. */
  people: string[]
  note: string | null
  /** The file says that nobody there wants texts. */
  optedOut: boolean
  /** Cells that could not be taken, and why; their words go into the note. */
  leftOut: LeftOut[]
}

export interface RowProblem { heading: string, reason: string }
export interface LeftOut extends RowProblem { text: string }

export type RowReading = { ok: true, row: ImportedRow } | { ok: false, problems: RowProblem[] }

const LONGEST: Record<string, number> = {
  'first-name': 80,
  'last-name': 80,
  'name': 160,
  'company': 160,
  'title': 80,
  'street': 120,
  'city': 80,
  'region': 40,
  'postcode': 20,
  'zone': 60,
  'mail': 160,
}
const LONGEST_NOTE = 10_000
const LONGEST_TYPED = 60
const LONGEST_PERSON = 160
const MOST_PHONES = 10
const MOST_TAGS = 20
const MOST_PEOPLE = 20

/**
 * Reads one row of a file. A telephone number that cannot be one is kept as it stands and marked; any other cell that
 * cannot be read is left out, and said. Refused is only who has no name, number or mail address, and a row that does not
 * say clearly whether they want texts.
 */
export function readRow(cells: string[], rules: ReadingRules): RowReading {
  const problems: RowProblem[] = []
  const row: ImportedRow = { name: '', columns: {}, fields: {}, phones: [], tags: [], people: [], note: null, optedOut: false, leftOut: [] }
  const country = countryOf(cells, rules)
  rules.matching.forEach((key, column) => {
    const text = cells[column]?.trim() ?? ''
    const target = key === null || text === '' ? undefined : rules.targets.find(one => one.key === key)
    if (!target) return
    const reason = put(row, target, text, { column, country, rules })
    if (reason === null) return
    const heading = rules.headings[column] ?? ''
    if (target.kind === 'opted-out') problems.push({ heading, reason })
    else row.leftOut.push({ heading, text, reason })
  })
  if (!nameRow(row, rules.people)) {
    problems.push({ heading: '', reason: rules.people ? 'There is no name, number or mail address in it.' : 'There is no name in it.' })
    problems.push(...row.leftOut.map(({ heading, reason }) => ({ heading, reason })))
  }
  return problems.length > 0 ? { ok: false, problems } : { ok: true, row }
}

interface Where { column: number, country: string, rules: ReadingRules }

/** @returns why the text cannot be taken; null if it was */
function put(row: ImportedRow, target: ImportTarget, text: string, { column, country, rules }: Where): string | null {
  switch (target.kind) {
    case 'number-of-phone':
      for (const typed of numbersIn(text).slice(0, MOST_PHONES - row.phones.length))
        row.phones.push(phoneOf(typed.slice(0, LONGEST_TYPED), rules.headings[column] ?? '', country))
      return null
    case 'tags':
      row.tags = [...new Set([...row.tags, ...text.split(/[,;]/).map(tag => tag.trim().slice(0, 40)).filter(Boolean)])].slice(0, MOST_TAGS)
      return null
    case 'people':
      row.people = [...new Set([...row.people, ...peopleIn(text)])].slice(0, MOST_PEOPLE)
      return null
    case 'note':
      row.note = [row.note, text].filter(Boolean).join('\n').slice(0, LONGEST_NOTE)
      return null
    case 'country': {
      const code = readCountry(text)
      if (!code) return `“${text}” is no country. Write it out in English, or as two letters.`
      row.columns.country = code
      return null
    }
    case 'mail':
      if (!row.columns.mail || target.key !== 'mail') return putValue(row, target, text, country, 'month-first')
      return text.toLowerCase() === row.columns.mail.toLowerCase() ? null : 'A record has one mail address, which it has already.'
    case 'opted-out': {
      const reading = readFieldValue({ kind: 'yes-no' }, text, country)
      if (!reading.ok) return reading.reason
      row.optedOut = reading.value === true
      return null
    }
    case 'colleague':
    case 'matter':
      row.columns[target.key] = text
      return null
    default:
      return putValue(row, target, text, country, rules.dayOrders[column] ?? 'month-first')
  }
}

function putValue(row: ImportedRow, target: ImportTarget, text: string, country: string, order: DayOrder): string | null {
  const most = LONGEST[target.key]
  if (most && text.length > most) return `That is longer than ${most} characters.`
  const plain
    = target.kind === 'date' ? (readDay(text, order) ?? text) : target.kind === 'number' || target.kind === 'money' ? plainAmount(text) : text
  const reading = readFieldValue({ kind: target.kind as 'text', options: target.options }, plain, country)
  if (!reading.ok) return reading.reason
  if (reading.value === null) return null
  if (target.key.startsWith('own.')) row.fields[target.key.slice('own.'.length)] = reading.value
  else row.columns[target.key] = String(reading.value)
  return null
}

/** What the row says in words: its note, and the cells that could not be taken, so that nothing of a file is lost. */
export function noteOf({ note, leftOut }: Pick<ImportedRow, 'note' | 'leftOut'>): string | null {
  const kept = leftOut.map(({ heading, text }) => `${heading}: ${text}`)
  return [note, ...kept].filter(Boolean).join('\n').slice(0, LONGEST_NOTE) || null
}

/** The country of the row's own address, which is its numbers' too; the chosen one where it has none. */
function countryOf(cells: string[], { matching, country }: ReadingRules): string {
  const column = matching.indexOf('country')
  return (column >= 0 && readCountry(cells[column] ?? '')) || country
}

/** Shorter than any number that stands by itself; "0761/555123" has a stroke behind its area code. */
const FEWEST_DIGITS = 7

/** The numbers of one cell: several with a stroke, a comma, a semicolon or a line break between them are several. */
function numbersIn(text: string): string[] {
  const parts = text.split(/[\r\n/,;|]+/).map(part => part.trim()).filter(Boolean)
  return parts.every(part => part.replace(/\D/g, '').length >= FEWEST_DIGITS) ? parts : [text]
}

/** Several people in one cell have semicolons or line breaks between them; only where there are none, commas. */
function peopleIn(text: string): string[] {
  const apart = /[;\r\n]/.test(text) ? /[;\r\n]+/ : /,/
  return text.split(apart).map(one => one.trim().slice(0, LONGEST_PERSON)).filter(Boolean)
}

/** A number as it is, or with what spreadsheets do to one undone: 447700900810.0, '0117…, 0044… and 011… wherever it was written. */
export function readNumberCell(typed: string, country: string): PhoneReading {
  const plain = typed.replace(/^['’]/, '').replace(/^(\+?\d{7,})\.0+$/, '$1')
  const reading = readPhone(plain, country)
  if (reading.ok || plain.startsWith('+')) return reading
  const abroad = readPhone(`+${plain.replace(/^(?:00|011)/, '')}`)
  return abroad.ok ? abroad : reading
}

function phoneOf(typed: string, heading: string, country: string): ImportedPhone {
  const reading = readNumberCell(typed, country)
  const label = labelOf(heading)
  return reading.ok
    ? {
        label,
        typed,
        e164: reading.e164,
        country: reading.country,
        kind: label === 'mobile' && reading.kind === 'unknown' ? 'mobile' : reading.kind,
        extension: reading.extension ?? null,
        unusable: null,
      }
    : { label, typed, e164: null, country: null, kind: 'unknown', extension: null, unusable: reading.reason }
}

/** What the heading of a column, or a label, says of its numbers. */
export function labelOf(heading: string): string {
  const plain = heading.toLowerCase()
  if (/mobil|cell|handy|portable|m[oó]vil/.test(plain)) return 'mobile'
  if (/work|business|office|company/.test(plain)) return 'work'
  if (/home|private/.test(plain)) return 'home'
  return 'number'
}

/** Gives a person a first and a last name, and everything a whole one. Who has no name is called by number or mail address. */
function nameRow(row: ImportedRow, people: boolean): boolean {
  const { columns } = row
  const given = columns.name ?? ''
  delete columns.name
  if (!people) {
    row.name = given
    return given !== ''
  }
  if (!columns['first-name'] && !columns['last-name']) splitName(given, columns)
  row.name = [columns['first-name'], columns['last-name']].filter(Boolean).join(' ')
  if (row.name === '') columns['first-name'] = row.name = row.phones[0]?.typed ?? columns.mail ?? ''
  return row.name !== ''
}

/** "Holm, Iris" has the last name first; else the last word is the last name. */
function splitName(whole: string, columns: Record<string, string>): void {
  const [last, first] = whole.split(/,\s*/)
  const words = first ? [first, last!] : [whole.split(/\s+/).slice(0, -1).join(' '), whole.split(/\s+/).at(-1) ?? '']
  if (words[0]) columns['first-name'] = words[0]
  if (words[1]) columns[words[0] ? 'last-name' : 'first-name'] = words[1]
}
