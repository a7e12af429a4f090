import fc from 'fast-check'
import VCard from 'vcf'
import { harmlessCell } from '~~/core/formats/csv-cell'
import { writeVCard, type Contact } from '~~/core/formats/vcard'

const contact = (values: Partial<Contact> = {}): Contact => ({
  id: '01a211fc-c842-771d-b0e4-f7a7577a0db8',
  name: 'Iris Holm',
  firstName: 'Iris',
  lastName: 'Holm',
  company: null,
  title: null,
  phones: [],
  mail: null,
  address: { street: null, city: null, region: null, postcode: null, country: null },
  tags: [],
  ...values,
})
const valueOf = (card: string, key: string) => new VCard().parse(card).get(key)?.valueOf()

describe('a cell of a CSV file', () => {
  it.each([
    ['=HYPERLINK("x")', '\'=HYPERLINK("x")'],
    ['@SUM(A1)', '\'@SUM(A1)'],
    ['+cmd|x', '\'+cmd|x'],
    ['-2+3+cmd', '\'-2+3+cmd'],
    ['\t=1', '\'\t=1'],
    ['+1 808 555 0142', '+1 808 555 0142'],
    ['+18085550142', '+18085550142'],
    ['-3.5', '-3.5'],
    ['-', '\'-'],
    ['Iris', 'Iris'],
    ['', ''],
  ])('%j is written %j', (text, written) => expect(harmlessCell(text)).toBe(written))
})

describe('a vCard', () => {
  // Source: RFC 6350, 3.4 (escaping), 6.1 and 6.2 (begin, version, names), 6.4.1 (telephone numbers as tel: addresses)
  it('is written as RFC 6350 has it', () => {
    expect(
      writeVCard(
        contact({
          company: 'Holm, Daughters; Co',
          title: 'owner',
          phones: [{ e164: '+18085550142', extension: '12', kind: 'mobile' }],
          mail: 'iris@holm.example',
          address: { street: '1 Hill\nback door', city: 'Honolulu', region: 'HI', postcode: '96801', country: 'US' },
          tags: ['bakery', 'a,b'],
        }),
      ),
    ).toBe(
      [
        'BEGIN:VCARD',
        'VERSION:4.0',
        'UID:urn:uuid:01a211fc-c842-771d-b0e4-f7a7577a0db8',
        'FN:Iris Holm',
        'N:Holm;Iris;;;',
        'ORG:Holm\\, Daughters\\; Co',
        'TITLE:owner',
        'TEL;VALUE=uri;TYPE="cell,text,voice":tel:+18085550142;ext=12',
        'EMAIL:iris@holm.example',
        'ADR:;;1 Hill\\nback door;Honolulu;HI;96801;US',
        'CATEGORIES:bakery,a\\,b',
        'END:VCARD',
        '',
      ].join('\r\n'),
    )
  })

  it('has no line over 75 octets, and unfolds to what it was', () => {
    fc.assert(fc.property(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 200 }), (name) => {
      const card = writeVCard(contact({ name, firstName: null, lastName: null }))
      for (const line of card.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
      const line = card.replaceAll('\r\n ', '').split('\r\n').find(one => one.startsWith('FN:'))!
      expect(line.slice(3).replace(/\\n/g, '\n').replace(/\\([\\,;])/g, '$1')).toBe(name.replace(/\r\n|\r/g, '\n').replaceAll('\\n', '\n'))
    }))
  })

  it('is read by an independent library (vcf)', () => {
    const card = writeVCard(
      contact({
        name: 'Zoë Øystein of the Very Long Name That Goes on and on beyond the End of a Line',
        phones: [{ e164: '+442079460018', extension: null, kind: 'landline' }],
        mail: 'zoe@post.example',
      }),
    )
    expect(valueOf(card, 'fn')).toBe('Zoë Øystein of the Very Long Name That Goes on and on beyond the End of a Line')
    expect(valueOf(card, 'tel')).toBe('tel:+442079460018')
    expect(valueOf(card, 'email')).toBe('zoe@post.example')
    expect(new VCard().parse(card).version).toBe('4.0')
  })
})
