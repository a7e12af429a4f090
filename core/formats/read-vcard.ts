import { decodeWindows1252 } from './decode'
import type { Table } from './read-csv'

/** One line of a card: its name, its parameters in lower case, its value as written. */
interface Property { name: string, parameters: string[], value: string }

/** The columns into which cards are laid, so that they go the way of every table. */
const HEADINGS = [
  'First name',
  'Last name',
  'Name',
  'Company',
  'Role',
  'Mail address',
  'Second mail address',
  'Birthday',
  'Mobile',
  'Work',
  'Home',
  'Other number',
  'Street',
  'City',
  'State or province',
  'Postcode',
  'Country',
  'Tags',
  'Note',
] as const
type Heading = typeof HEADINGS[number]

const NUMBERS = ['Mobile', 'Work', 'Home', 'Other number'] as const satisfies readonly Heading[]

/**
 * Reads vCards of all versions that telephones and programs write: 2.1 (with quoted-printable and
 * character sets), 3.0 (RFC 2426) and 4.0 (RFC 6350). What a card says of pictures, keys and the like is
 * passed over.
 *
 * @param text in which quoted-printable values are still as written
 */
export function readVCards(text: string): Table {
  const rows: string[][] = []
  let card: Property[] | null = null
  let endless = 0
  const endOf = (cut: Property[]) => {
    endless++
    rows.push(rowOf(cut))
  }
  for (const line of logicalLines(text)) {
    const property = propertyOf(line)
    if (!property) continue
    if (property.name === 'BEGIN' && property.value.toUpperCase() === 'VCARD') {
      if (card) endOf(card)
      card = []
    }
    else if (property.name === 'END' && card) {
      rows.push(rowOf(card))
      card = null
    }
    else card?.push(property)
  }
  if (card) endOf(card)
  return { headings: [...HEADINGS], rows, warnings: endless === 0 ? [] : [sayEndless(endless)] }
}

const sayEndless = (count: number) =>
  `${count === 1 ? 'One contact has' : `${count} contacts have`} no end (END:VCARD). The file may have been cut off: what there is of ${count === 1 ? 'it' : 'them'} is below.`

export const isVCard = (text: string): boolean => /^\s*BEGIN:VCARD\s*$/im.test(text.slice(0, 200))

/** Lines put together again: those that begin with a blank go on the one above, and so do those after a `=` of quoted-printable. */
function logicalLines(text: string): string[] {
  const lines: { head: string, pieces: string[] }[] = []
  let soft = false
  for (const line of text.split(/\r\n|\n|\r/)) {
    const last = lines.at(-1)
    if (soft) last!.pieces.push(last!.pieces.pop()!.slice(0, -1), line)
    else if (last && (line.startsWith(' ') || line.startsWith('\t'))) last.pieces.push(line.slice(1))
    else lines.push({ head: line.slice(0, Math.max(0, line.indexOf(':'))), pieces: [line] })
    const now = lines.at(-1)!
    soft = now.pieces.at(-1)!.endsWith('=') && now.head.toUpperCase().includes('QUOTED-PRINTABLE')
  }
  return lines.map(({ pieces }) => pieces.join(''))
}

function propertyOf(line: string): Property | null {
  const colon = outsideQuotes(line)
  if (colon < 0) return null
  const [name, ...parameters] = line.slice(0, colon).split(';')
  const lower = parameters.map(parameter => parameter.toLowerCase())
  const value = line.slice(colon + 1)
  return {
    // a group in front, as in item1.TEL, names nothing
    name: name!.slice(name!.lastIndexOf('.') + 1).toUpperCase(),
    parameters: lower,
    value: lower.some(parameter => /^(encoding=)?quoted-printable$/.test(parameter)) ? unquoted(value, charsetOf(lower)) : value,
  }
}

function outsideQuotes(line: string): number {
  let quoted = false
  for (let i = 0; i < line.length; i++) {
    if (line[i] === '"') quoted = !quoted
    if (line[i] === ':' && !quoted) return i
  }
  return -1
}

const charsetOf = (parameters: string[]) =>
  parameters.find(parameter => parameter.startsWith('charset='))?.slice('charset='.length) ?? 'utf-8'

/** Quoted-printable (RFC 2045, 6.7): `=E9` is one byte of the character set. */
function unquoted(value: string, charset: string): string {
  const bytes: number[] = []
  const encoder = new TextEncoder()
  for (let i = 0; i < value.length; i++) {
    const hex = value[i] === '=' ? value.slice(i + 1, i + 3) : ''
    if (/^[0-9a-f]{2}$/i.test(hex)) {
      bytes.push(Number.parseInt(hex, 16))
      i += 2
    }
    else bytes.push(...encoder.encode(value[i]))
  }
  return decodeAs(charset, new Uint8Array(bytes))
}

function decodeAs(charset: string, bytes: Uint8Array): string {
  try {
    const decoder = new TextDecoder(charset)
    return decoder.encoding === 'windows-1252' ? decodeWindows1252(bytes) : decoder.decode(bytes)
  }
  catch {
    return decodeWindows1252(bytes)
  }
}

/** Parts of a value between semicolons, with what is escaped put right (RFC 6350, 3.4). */
function parts(value: string, separator = ';'): string[] {
  const found: string[] = []
  let part = ''
  for (let i = 0; i < value.length; i++) {
    if (value[i] === '\\' && i + 1 < value.length) part += /n/i.test(value[++i]!) ? '\n' : value[i]
    else if (value[i] === separator) {
      found.push(part.trim())
      part = ''
    }
    else part += value[i]
  }
  return [...found, part.trim()]
}

const whole = (value: string) => parts(value, '\0')[0]!

function rowOf(card: Property[]): string[] {
  const row: Partial<Record<Heading, string>> = {}
  const put = (heading: Heading, value: string | undefined) => {
    if (value && !row[heading]) row[heading] = value
  }
  for (const property of card) {
    const { name, value } = property
    if (name === 'N') {
      const [last, first, more] = parts(value)
      put('First name', [first, more].filter(Boolean).join(' '))
      put('Last name', last)
    }
    else if (name === 'FN') put('Name', whole(value))
    else if (name === 'ORG') put('Company', parts(value)[0])
    else if (name === 'TITLE' || name === 'ROLE') put('Role', whole(value))
    else if (name === 'EMAIL') put(row['Mail address'] ? 'Second mail address' : 'Mail address', whole(value).replace(/^mailto:/i, ''))
    else if (name === 'BDAY') put('Birthday', whole(value).replace(/^(\d{4})-?(\d{2})-?(\d{2})(?:T.*)?$/, '$1-$2-$3'))
    else if (name === 'TEL') putNumber(row, property)
    else if (name === 'ADR') {
      const [, , street, city, region, postcode, country] = parts(value)
      for (const [heading, part] of [
        ['Street', street],
        ['City', city],
        ['State or province', region],
        ['Postcode', postcode],
        ['Country', country],
      ] as const)
        put(heading, part?.replaceAll('\n', ', '))
    }
    else if (name === 'CATEGORIES') put('Tags', parts(value, ',').join(', '))
    else if (name === 'NOTE') put('Note', whole(value))
  }
  return HEADINGS.map(heading => row[heading] ?? '')
}

/** Numbers go under what they are said to be, the next free one if there are several of a kind. */
function putNumber(row: Partial<Record<Heading, string>>, { parameters, value }: Property): void {
  const types = parameters.join(',')
  if (/\bfax\b|\bpager\b/.test(types)) return
  const kind: Heading = /\bcell\b|\biphone\b|\bmobile\b/.test(types)
    ? 'Mobile'
    : /\bwork\b/.test(types)
      ? 'Work'
      : /\bhome\b/.test(types)
        ? 'Home'
        : 'Other number'
  const free = [kind, ...NUMBERS].find(heading => !row[heading])
  if (free) row[free] = whole(value).replace(/^tel:/i, '').replace(/;ext=/i, ' ext. ').replace(/;.*$/, '')
}
