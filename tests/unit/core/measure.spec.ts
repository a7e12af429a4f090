import { execFileSync } from 'node:child_process'
import { getCharCount } from '@trt2/gsm-charset-utils'
import fc from 'fast-check'
import { split } from 'split-sms'
import { measureText, encodingPins } from '~~/core'

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
    const perl = 'use Encode; binmode STDOUT, ":utf8"; for my $c (1..0xD7FF, 0xE000..0xFFFF) { my $s = chr $c; my $b = eval { encode("gsm0338", $s, Encode::FB_CROAK) }; print "$c ", length $b, "\n" if defined $b }'
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

describe('encodingPins', () => {
  it('points at each character that makes a text expensive', () => {
    expect(encodingPins('It’s fine 😀.')).toEqual([{ index: 2, char: '’' }, { index: 10, char: '😀' }])
  })

  it('is empty exactly for texts in GSM-7', () => {
    fc.assert(fc.property(anyText, text => (encodingPins(text).length === 0) === (measureText(text).encoding === 'GSM-7')))
  })
})
