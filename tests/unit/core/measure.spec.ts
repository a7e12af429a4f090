import { execFileSync } from 'node:child_process'
import { getCharCount } from '@trt2/gsm-charset-utils'
import fc from 'fast-check'
import { split } from 'split-sms'
import { measureText, encodingPins } from '~~/core'
import { capacityOf } from '~~/core/text/measure'
import { NATIONAL_LANGUAGES, NATIONAL_TABLES, readShift } from '~~/core/text/national'
import { cut, isSayable, join } from '~~/practice/carrier/air'
import { isTables } from '~~/practice/carrier/tables'

const GSM = '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?¡ABCXYZÄÖÑÜ§¿abcxyzäöñüà\f^{}\\[~]|€'
const OTHERS = ['’', '“', '–', '…', 'ê', 'Ж', '漢', '😀', '👩‍🔧', '\u00a0']

/** Texts around every boundary, of GSM characters, with or without one that is none. */
const gsmText = fc.array(fc.constantFrom(...GSM), { maxLength: 700 }).map(chars => chars.join(''))
const anyText = fc.array(fc.constantFrom(...GSM, ...OTHERS), { maxLength: 400 }).map(chars => chars.join(''))

describe('measureText', () => {
  it('holds the published capacities (3GPP TS 23.038 and TS 23.040, values from memory)', () => {
    expect(measureText('')).toMatchObject({ encoding: 'GSM-7', units: 0, parts: 0 })
    expect(measureText('a'.repeat(160))).toMatchObject({ units: 160, parts: 1, room: 0 })
    expect(measureText('a'.repeat(161))).toMatchObject({ parts: 2, perPart: 153, room: 145 })
    expect(measureText('a'.repeat(306))).toMatchObject({ parts: 2, room: 0 })
    expect(measureText('a'.repeat(307)).parts).toBe(3)
    expect(measureText('ж'.repeat(70))).toMatchObject({ encoding: 'UCS-2', parts: 1 })
    expect(measureText('ж'.repeat(71))).toMatchObject({ parts: 2, perPart: 67 })
    expect(measureText('ж'.repeat(135)).parts).toBe(3)
    for (const char of '\f^{}\\[~]|€') expect(measureText(char)).toMatchObject({ encoding: 'GSM-7', units: 2 })
  })

  it('never cuts an escape pair or a surrogate pair', () => {
    expect(measureText(`${'a'.repeat(152)}€${'a'.repeat(152)}`)).toMatchObject({ units: 306, parts: 3, room: 152 })
    expect(measureText(`${'ж'.repeat(66)}😀${'ж'.repeat(66)}`)).toMatchObject({ units: 134, parts: 3 })
  })

  it('agrees with split-sms', () => {
    fc.assert(fc.property(fc.oneof(gsmText, anyText), (text) => {
      fc.pre(text.length > 0)
      const outside = split(text)
      const ours = measureText(text)
      expect({ encoding: ours.encoding, parts: ours.parts }).toEqual({
        encoding: outside.characterSet === 'GSM' ? 'GSM-7' : 'UCS-2',
        parts: outside.parts.length,
      })
      expect(ours.room).toBe(outside.remainingInPart)
    }), { numRuns: 2000 })
  })

  it('agrees with @trt2/gsm-charset-utils', () => {
    fc.assert(fc.property(fc.oneof(gsmText, anyText), (text) => {
      fc.pre(text.length > 0)
      const outside = getCharCount(text)
      const ours = measureText(text)
      expect({ encoding: ours.encoding, units: ours.units, parts: ours.parts }).toEqual({
        encoding: outside.encoding === 'GSM' ? 'GSM-7' : 'UCS-2',
        units: outside.charCount,
        parts: outside.msgCount,
      })
    }), { numRuns: 2000 })
  })

  it('knows the alphabet of Perl\'s Encode::GSM0338, character by character', () => {
    const perl
      = 'use Encode; binmode STDOUT, ":utf8"; for my $c (1..0xD7FF, 0xE000..0xFFFF) { my $s = chr $c; my $b = eval { encode("gsm0338", $s, Encode::FB_CROAK) }; print "$c ", length $b, "\n" if defined $b }'
    const rows = execFileSync('perl', ['-e', perl], { encoding: 'utf8' }).trim().split('\n').map(row => row.split(' ').map(Number))
    const outside = new Map(rows.map(([code, length]) => [code, length]))
    const codes = Array.from({ length: 0xFFFF }, (_, i) => i + 1)
      .filter(code => code < 0xD800 || code > 0xDFFF)
      // the escape is no character; the standard's note that reads Ç as ç is not shared by telephones
      .filter(code => code !== 0x1B && code !== 0xE7)
    const ours = codes.map((code) => {
      const { encoding, units } = measureText(String.fromCharCode(code))
      return [code, encoding === 'GSM-7' ? units : undefined]
    })
    expect(ours).toEqual(codes.map(code => [code, outside.get(code)]))
  })
})

describe('national tables', () => {
  const LETTERS = { turkish: 'ğĞşŞıİçéü', spanish: 'áéíóúñÁÍÓÚç', portuguese: 'ãõâêôçÃÕáíóúÀ∞' } as const
  const languages = fc.subarray([...NATIONAL_LANGUAGES])
  const text = fc
    .array(fc.oneof({ weight: 6, arbitrary: fc.constantFrom(...GSM) }, fc.constantFrom(...Object.values(LETTERS).join(''), '’', '😀')), {
      maxLength: 500,
    })
    .map(chars => chars.join(''))

  it('leaves so much room beside the headers that name them (3GPP TS 23.040 and 23.038, values from memory)', () => {
    expect(capacityOf({ encoding: 'GSM-7', shift: 'turkish-single' })).toEqual({ single: 155, joined: 149 })
    expect(capacityOf({ encoding: 'GSM-7', shift: 'portuguese-both' })).toEqual({ single: 152, joined: 146 })
    // 18 letters with a cedilla or a breve in one text: by extension two septets each, by the locking table one
    expect(measureText('ş'.repeat(78), ['turkish'])).toMatchObject({ shift: 'turkish-locking', units: 78, parts: 1, room: 77 })
    expect(measureText('Günaydın, yarın görüşürüz.', ['turkish'])).toMatchObject({ shift: 'turkish-single', units: 29, parts: 1 })
    expect(measureText('Günaydın, yarın görüşürüz.')).toMatchObject({ encoding: 'UCS-2', shift: null })
  })

  it('stay unused where the line does not have them or the usual alphabet costs no more', () => {
    fc.assert(fc.property(text, languages, (words, allowed) => {
      const { shift, parts } = measureText(words, allowed)
      const plain = measureText(words)
      if (shift) expect(allowed).toContain(readShift(shift).language)
      if (shift) expect(parts <= plain.parts).toBe(true)
      if (shift && plain.encoding === 'GSM-7') expect(parts).toBeLessThan(plain.parts)
      if (!shift) expect({ parts }).toEqual({ parts: plain.parts })
    }), { numRuns: 1000 })
  })

  it('are the cheapest of all codings in which the practice carrier can say the text', () => {
    fc.assert(fc.property(text, languages, (words, allowed) => {
      fc.pre(words !== '')
      const ids = [0, ...allowed.map(language => NATIONAL_TABLES[language].id)]
      const ways = ids.flatMap(id => [{ single: id, locking: 0 }, { single: 0, locking: id }, { single: id, locking: id }]).filter(isTables)
      const counts = ways.filter(way => way.single + way.locking === 0 || isSayable(words, way)).map(way => cut(words, 0, way).length)
      expect(measureText(words, allowed).parts).toBe(Math.min(...counts))
    }), { numRuns: 1000 })
  })

  it('bring the text whole to the handset, within 140 octets a part', () => {
    fc.assert(
      fc.property(
        fc
          .constantFrom(...NATIONAL_LANGUAGES)
          .chain(language =>
            fc.tuple(
              fc.constant(language),
              fc.array(fc.constantFrom(...LETTERS[language], ...'abc {}€'), { minLength: 1, maxLength: 600 }),
            ),
          ),
        ([language, chars]) => {
          const words = chars.join('')
          const { id, locking } = NATIONAL_TABLES[language]
          for (const tables of [
            { single: id, locking: 0 },
            ...(locking
              ? [
                  { single: 0, locking: id },
                  { single: id, locking: id },
                ]
              : []),
          ]) {
            if (!isSayable(words, tables)) continue
            const parts = cut(words, 3, tables)
            expect(join([...parts].reverse())).toBe(words)
            const header = 1 + 3 * (Number(tables.single > 0) + Number(tables.locking > 0)) + (parts.length > 1 ? 5 : 0)
            for (const { data } of parts)
              expect(header + Math.ceil((data.length * 7 + ((7 - ((header * 8) % 7)) % 7)) / 8)).toBeLessThanOrEqual(140)
          }
        },
      ),
    )
  })
})

describe('encodingPins', () => {
  it('points at what even the letters of the line do not have', () => {
    expect(encodingPins('Yarın 10’da', undefined, ['turkish'])).toEqual([{ index: 8, char: '’' }])
    expect(encodingPins('Yarın 10', undefined, ['turkish'])).toEqual([])
  })

  it('points at each character that makes a text expensive', () => {
    expect(encodingPins('It’s fine 😀.')).toEqual([{ index: 2, char: '’' }, { index: 10, char: '😀' }])
  })

  it('is empty exactly for texts in GSM-7', () => {
    fc.assert(fc.property(anyText, text => (encodingPins(text).length === 0) === (measureText(text).encoding === 'GSM-7')))
  })
})
