/** What goes onto a card. */
export interface Contact {
  id: string
  name: string
  firstName: string | null
  lastName: string | null
  company: string | null
  title: string | null
  phones: { e164: string, extension: string | null, kind: string }[]
  mail: string | null
  address: { street: string | null, city: string | null, region: string | null, postcode: string | null, country: string | null }
  tags: string[]
}

const LINE_OCTETS = 75

/** A vCard 4.0 (RFC 6350) with CRLF after each line, folded at 75 octets. */
export function writeVCard({ id, name, firstName, lastName, company, title, phones, mail, address, tags }: Contact): string {
  const { street, city, region, postcode, country } = address
  const lines = [
    'BEGIN:VCARD',
    'VERSION:4.0',
    `UID:urn:uuid:${id}`,
    `FN:${escaped(name)}`,
    ...(firstName || lastName ? [`N:${[lastName, firstName, null, null, null].map(escaped).join(';')}`] : []),
    ...(company ? [`ORG:${escaped(company)}`] : []),
    ...(title ? [`TITLE:${escaped(title)}`] : []),
    ...phones.map(
      ({ e164, extension, kind }) =>
        `TEL;VALUE=uri;TYPE=${kind === 'mobile' ? '"cell,text,voice"' : 'voice'}:tel:${e164}${extension ? `;ext=${extension}` : ''}`,
    ),
    ...(mail ? [`EMAIL:${escaped(mail)}`] : []),
    ...(street || city || region || postcode || country
      ? [`ADR:${[null, null, street, city, region, postcode, country].map(escaped).join(';')}`]
      : []),
    ...(tags.length > 0 ? [`CATEGORIES:${tags.map(escaped).join(',')}`] : []),
    'END:VCARD',
  ]
  return lines.map(line => `${folded(line)}\r\n`).join('')
}

/** RFC 6350, 3.4: backslash, comma, semicolon and line break have a meaning in a value. */
const escaped = (text: string | null) => (text ?? '').replace(/[\\,;]/g, '\\$&').replace(/\r\n|\r|\n/g, '\\n')

/** RFC 6350, 3.2: a line goes on after a line break and a blank; no character of several octets is cut. */
function folded(line: string): string {
  const encoder = new TextEncoder()
  let octets = 0
  let result = ''
  for (const char of line) {
    const size = encoder.encode(char).length
    if (octets + size > LINE_OCTETS) {
      result += '\r\n '
      octets = 1
    }
    result += char
    octets += size
  }
  return result
}
