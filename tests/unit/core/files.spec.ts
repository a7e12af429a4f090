import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import Papa from 'papaparse'
import VCard from 'vcf'
import { decodeText } from '~~/core/formats/decode'
import { readCsv } from '~~/core/formats/read-csv'
import { isVCard, readVCards } from '~~/core/formats/read-vcard'
import { writeVCard } from '~~/core/formats/vcard'
import { readDay } from '~~/core/import/days'

const folder = join(process.cwd(), 'tests/files')
const bytesOf = (name: string) => new Uint8Array(readFileSync(join(folder, name)))

const PEOPLE = [
  ['Zoë', 'Ångström', '+1 808 555 0142', 'zoe@post.example', 'Rye, Reason & Co', 'Hilo', '2026-12-03', 'Says "maybe".\nCall again.'],
  ['Øystein', 'Núñez', '(902) 555-0161', 'oystein@post.example', 'Crumb; Crust', 'Halifax', '2026-12-14', 'Über den Hügel – später'],
  ['Chloé', 'O’Hara', '07700 900161', 'chloe@post.example', '', 'Bristol', '2027-01-05', ''],
]

// Source: the programs that tests/files/README.md names, which wrote these files
describe('a table that another program wrote', () => {
  const expected: Record<string, { encoding: string, delimiter: string }> = {
    'gnumeric.csv': { encoding: 'UTF-8', delimiter: ',' },
    'gnumeric-1252-semicolons.txt': { encoding: 'Windows-1252', delimiter: ';' },
    'gnumeric-utf16le-tabs.txt': { encoding: 'UTF-16LE', delimiter: '\t' },
    'libreoffice-utf8.csv': { encoding: 'UTF-8', delimiter: ',' },
    'libreoffice-1252-semicolons.csv': { encoding: 'Windows-1252', delimiter: ';' },
    'libreoffice-utf16.csv': { encoding: 'UTF-16LE', delimiter: ',' },
    'python-utf8-bom.csv': { encoding: 'UTF-8', delimiter: ',' },
    'python-utf16-tabs.csv': { encoding: 'UTF-16LE', delimiter: '\t' },
  }

  it.each(readdirSync(folder).filter(name => /\.(csv|txt)$/.test(name)))('%s is read to the letter', (name) => {
    const { text, encoding } = decodeText(bytesOf(name))
    const { headings, rows, delimiter } = readCsv(text)
    expect({ encoding, delimiter }).toEqual(expected[name])
    expect(headings).toEqual(['First name', 'Last name', 'Mobile', 'E-mail', 'Company', 'City', 'Trial starts', 'Note'])
    expect(rows.map(row => row.map((cell, i) => i === 6 ? readDay(cell, 'day-first') : cell.replace(/\r\n/g, '\n')))).toEqual(PEOPLE)
  })
})

describe('a table', () => {
  it('names its delimiter, or has headings that are empty, or rows of other lengths', () => {
    expect(readCsv('sep=;\r\nA;B\r\n1;2\r\n')).toMatchObject({ headings: ['A', 'B'], rows: [['1', '2']], delimiter: ';' })
    expect(readCsv('A,,C\n1,2,3\n1\n\n1,2,3,4\n')).toEqual({
      headings: ['A', 'Column 2', 'C', 'Column 4'],
      rows: [
        ['1', '2', '3', ''],
        ['1', '', '', ''],
        ['1', '2', '3', '4'],
      ],
      delimiter: ',',
      headed: true,
      warnings: [],
    })
    expect(readCsv('')).toMatchObject({ rows: [] })
  })

  it('has no headings where its first row is somebody, or where it is told so', () => {
    expect(readCsv('Iris,808 555 0142\nBo,902 555 0161')).toMatchObject({ headed: false, headings: ['Column 1', 'Column 2'], rows: [['Iris', '808 555 0142'], ['Bo', '902 555 0161']] })
    expect(readCsv('Iris,iris@holm.example')).toMatchObject({ headed: false })
    expect(readCsv('Iris,Holm\nBo,Castellanos', false).rows).toHaveLength(2)
    expect(readCsv('Iris,808 555 0142\nBo,902 555 0161', true)).toMatchObject({ headings: ['Iris', '808 555 0142'], rows: [['Bo', '902 555 0161']] })
  })

  it('says of a quotation mark that is never closed where it is', () => {
    expect(readCsv('Name,Note\nIris,"likes trikes\nBo,bells\n').warnings).toEqual([expect.stringContaining('“Iris”')])
    expect(readCsv('Name,Note\nIris,"likes\ntrikes"\n').warnings).toEqual([])
  })

  it('keeps numbers with + and takes off what kept a formula harmless', () => {
    expect(readCsv('a,b\n\'=1+1,+1 808 555 0142').rows).toEqual([['=1+1', '+1 808 555 0142']])
  })

  it('is read as it was written, whatever stands in it (papaparse)', () => {
    const cell = fc.string({ unit: fc.constantFrom('a', 'Z', 'é', '日', '"', ';', ',', '\t', '\n', ' ', '1') }).map(text => text.trim())
    fc.assert(
      fc.property(
        fc.array(fc.tuple(cell, cell, fc.constant('x')), { minLength: 1 }),
        fc.constantFrom(',', ';', '\t'),
        (rows, delimiter) => {
          const text = Papa.unparse([['one', 'two', 'three'], ...rows], { delimiter, quotes: true })
          expect(readCsv(text).rows).toEqual(rows)
        },
      ),
    )
  })
})

describe('text', () => {
  it.each(['utf16le', 'utf8'] as const)('without a mark is known as %s', (encoding) => {
    expect(decodeText(new Uint8Array(Buffer.from('Name;Ort\nZoë;Hügel', encoding))).text).toBe('Name;Ort\nZoë;Hügel')
  })

  it('is never refused', () => {
    fc.assert(fc.property(fc.uint8Array(), bytes => typeof decodeText(bytes).text === 'string'))
  })
})

const cells = (text: string) => {
  const { headings, rows } = readVCards(text)
  return rows.map(row => Object.fromEntries(headings.map((heading, i) => [heading, row[i]] as const).filter(([, cell]) => cell)))
}

describe('vCards', () => {
  // after the example of RFC 6350, 8, with invented people
  it('of version 4.0 are read', () => {
    expect(
      cells(`BEGIN:VCARD\r
VERSION:4.0\r
FN:Iris Holm\r
N:Holm;Iris;;;ing. jr,M.Sc.\r
BDAY:--0203\r
GENDER:F\r
LANG;PREF=1:fr\r
ORG;TYPE=work:Holm & Daughters\r
ADR;TYPE=work:;Suite D2-630;2875 Hill\\, back door;\r
 Hilo;HI;96720;United States\r
TEL;VALUE=uri;TYPE="work,voice";PREF=1:tel:+1-808-555-0109;ext=102\r
TEL;VALUE=uri;TYPE="work,cell,voice,video,text":tel:+1-808-555-0142\r
EMAIL;TYPE=work:iris@holm.example\r
KEY;TYPE=work;VALUE=uri:\r
 http://holm.example/key.asc\r
CATEGORIES:bakery,north\\, far\r
NOTE:First line\\nsecond\\; line\r
END:VCARD\r
`),
    ).toEqual([
      {
        'Birthday': '--0203',
        'First name': 'Iris',
        'Last name': 'Holm',
        'Name': 'Iris Holm',
        'Company': 'Holm & Daughters',
        'Mobile': '+1-808-555-0142',
        'Work': '+1-808-555-0109 ext. 102',
        'Mail address': 'iris@holm.example',
        'Street': '2875 Hill, back door',
        'City': 'Hilo',
        'State or province': 'HI',
        'Postcode': '96720',
        'Country': 'United States',
        'Tags': 'bakery, north, far',
        'Note': 'First line\nsecond; line',
      },
    ])
  })

  it('have a second mail address and a birthday', () => {
    expect(cells('BEGIN:VCARD\nFN:Iris\nEMAIL:iris@holm.example\nEMAIL;TYPE=work:bakery@holm.example\nBDAY:19850412\nEND:VCARD')).toEqual([
      { 'Name': 'Iris', 'Mail address': 'iris@holm.example', 'Second mail address': 'bakery@holm.example', 'Birthday': '1985-04-12' },
    ])
  })

  it('of which one has no end are read as far as they go, and said', () => {
    const { rows, warnings } = readVCards('BEGIN:VCARD\nFN:Iris\nBEGIN:VCARD\nFN:Bo\nEND:VCARD\nBEGIN:VCARD\nFN:Zad')
    expect(rows.map(row => row.find(Boolean))).toEqual(['Iris', 'Bo', 'Zad'])
    expect(warnings).toEqual([expect.stringMatching(/^2 contacts have no end/)])
  })

  // after the examples of RFC 2426, 7
  it('of version 3.0 are read, several in a file, with groups', () => {
    expect(
      cells(
        'BEGIN:vCard\nVERSION:3.0\nFN:Bo Castellanos\nORG:Hop & Carry\\, Inc.;Workshop\nTITLE:mechanic\nitem1.TEL;TYPE=VOICE,MSG,WORK:+1-902-555-0161\nTEL;TYPE=FAX,WORK:+1-902-555-0199\nTEL;TYPE=HOME:1\nTEL;TYPE=HOME:2\nEMAIL;TYPE=INTERNET,PREF:bo@carry.example\nEND:vCard\n\nBEGIN:vCard\nVERSION:3.0\nFN:Second\nEND:vCard\n',
      ),
    ).toEqual([
      {
        'Name': 'Bo Castellanos',
        'Company': 'Hop & Carry, Inc.',
        'Role': 'mechanic',
        'Work': '+1-902-555-0161',
        'Home': '1',
        'Mobile': '2',
        'Mail address': 'bo@carry.example',
      },
      { Name: 'Second' },
    ])
  })

  // after vCard 2.1 (versit, 1996) and RFC 2045, 6.7, as telephones write them
  it('of version 2.1 are read, with quoted-printable over several lines in its own character set', () => {
    expect(
      cells(
        'BEGIN:VCARD\r\nVERSION:2.1\r\nN;CHARSET=ISO-8859-1;ENCODING=QUOTED-PRINTABLE:=C5ngstr=F6m;Zo=EB\r\nFN;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:Zo=C3=AB =\r\n=C3=85ngstr=C3=B6m\r\nTEL;CELL:+18085550142\r\nTEL;HOME;VOICE:8085550109\r\nNOTE;QUOTED-PRINTABLE:1 =3D 1=0Aand so on\r\nPHOTO;ENCODING=BASE64;JPEG:AAAA\r\n BBBB\r\n\r\nEND:VCARD\r\n',
      ),
    ).toEqual([
      {
        'First name': 'Zoë',
        'Last name': 'Ångström',
        'Name': 'Zoë Ångström',
        'Mobile': '+18085550142',
        'Home': '8085550109',
        'Note': '1 = 1\nand so on',
      },
    ])
  })

  // Source: python3-vobject, which wrote the file, and vcf, which reads it beside us
  it('that other programs write are read, as another library reads them', () => {
    const { text } = decodeText(bytesOf('vobject-3.0.vcf'))
    expect(isVCard(text)).toBe(true)
    const read = cells(text)
    expect(read[0]).toEqual({
      'First name': 'Zoë',
      'Last name': 'Ångström',
      'Name': 'Zoë Ångström',
      'Company': 'Rye, Reason & Co',
      'Mobile': '+1 808 555 0142',
      'Mail address': 'zoë@post.example',
      'Street': '1 Hill; back door',
      'City': 'Hilo',
      'State or province': 'HI',
      'Postcode': '96720',
      'Country': 'United States',
      'Note': 'Says "maybe".\nCall again, after a long line that has to be folded because it goes on and on and on.',
    })
    const theirs = VCard.parse(text.replace(/\r?\n/g, '\r\n'))
    expect(theirs.map(card => [card.get('fn')!.valueOf(), card.get('tel')!.valueOf()])).toEqual(read.map(card => [card.Name, card.Mobile]))
  })

  it('that Plauder writes are read again', () => {
    const card = writeVCard({
      id: '01a211fc-c842-771d-b0e4-f7a7577a0db8',
      name: 'Iris Holm',
      firstName: 'Iris',
      lastName: 'Holm',
      company: 'Holm, Daughters; Co',
      title: 'owner',
      phones: [{ e164: '+18085550142', extension: '12', kind: 'mobile' }],
      mail: 'iris@holm.example',
      address: { street: '1 Hill', city: 'Hilo', region: 'HI', postcode: '96720', country: 'US' },
      tags: ['bakery'],
    })
    expect(cells(card)).toEqual([
      {
        'First name': 'Iris',
        'Last name': 'Holm',
        'Name': 'Iris Holm',
        'Company': 'Holm, Daughters; Co',
        'Role': 'owner',
        'Mobile': '+18085550142 ext. 12',
        'Mail address': 'iris@holm.example',
        'Street': '1 Hill',
        'City': 'Hilo',
        'State or province': 'HI',
        'Postcode': '96720',
        'Country': 'US',
        'Tags': 'bakery',
      },
    ])
  })

  it('that are broken give what can be read, and nothing throws', () => {
    expect(cells('BEGIN:VCARD\nFN:No end\nBEGIN:VCARD\nFN:Whole\nTEL\nEND:VCARD\nEND:VCARD')).toEqual([{ Name: 'No end' }, { Name: 'Whole' }])
    fc.assert(
      fc.property(
        fc.string({
          unit: fc.constantFrom('BEGIN:VCARD\n', 'END:VCARD\n', 'TEL;', 'N:', ';', '=', '\\', '\n', ' ', 'ENCODING=QUOTED-PRINTABLE:', '"'),
        }),
        text => Array.isArray(readVCards(text).rows),
      ),
    )
  })
})
