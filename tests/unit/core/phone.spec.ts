import { PhoneNumberFormat, PhoneNumberType, PhoneNumberUtil } from 'google-libphonenumber'
import examples from 'libphonenumber-js/examples.mobile.json'
import { getCountries, getExampleNumber, type CountryCode } from 'libphonenumber-js/max'
import { readPhone, zonesOfNumber } from '~~/core'
import table from '~~/core/phone/number-zones.json'

const google = PhoneNumberUtil.getInstance()

describe('readPhone', () => {
  it.each([
    ['(808) 555-0142', 'US', '+18085550142'],
    ['808.555.0142', 'US', '+18085550142'],
    ['1 808 555 0142', 'US', '+18085550142'],
    ['+1-808-555-0142', undefined, '+18085550142'],
    ['tel:+1-808-555-0142', undefined, '+18085550142'],
    ['tel:808-555-0142;phone-context=+1', undefined, '+18085550142'],
    ['sms:+18085550142?body=Hi', undefined, '+18085550142'],
    ['\u202A+1 808\u00A0555\u20110142\u202C', undefined, '+18085550142'],
    ['＋１ ８０８ ５５５ ０１４２', undefined, '+18085550142'],
    ['٠٧٧٠٠ ٩٠٠١٢٣', 'GB', '+447700900123'],
    ['+44 (0) 117 496 0123', undefined, '+441174960123'],
    ['+44(0)7700 900123', 'US', '+447700900123'],
    ['0117 496 0123', 'GB', '+441174960123'],
    ['011 44 7700 900123', 'US', '+447700900123'],
    ['00 1 808 555 0142', 'GB', '+18085550142'],
    ['Mobile: 07700 900123', 'GB', '+447700900123'],
    ['902 555 0161', 'ca', '+19025550161'],
    ['+49 (0)30 901820', 'US', '+4930901820'],
    ['+39 06 6982', undefined, '+39066982'],
  ])('reads %s (%s) as %s', (typed, country, e164) => {
    expect(readPhone(typed, country)).toMatchObject({ ok: true, e164 })
  })

  it.each([
    ['503 555 0118 x12', '12'],
    ['503-555-0118 ext. 4', '4'],
    ['tel:+1-503-555-0118;ext=77', '77'],
  ])('keeps the extension of %s apart', (typed, extension) => {
    expect(readPhone(typed, 'US')).toEqual({ ok: true, e164: '+15035550118', country: 'US', kind: 'unknown', extension })
  })

  it.each([
    ['', 'US', 'empty'],
    ['ask reception', 'US', 'not-a-number'],
    ['808 555 0142', undefined, 'needs-country'],
    ['808 555 01', 'US', 'too-short'],
    ['+1 808 555 01421', undefined, 'too-long'],
    ['+999 12345678', undefined, 'unknown-country-code'],
    ['103 555 0142', 'US', 'not-assigned'],
    ['503 555 0118 / 503 555 0119', 'US', 'several-numbers'],
  ])('says why %j (%s) is none: %s', (typed, country, reason) => {
    expect(readPhone(typed, country)).toEqual({ ok: false, reason })
  })

  it('takes the ranges kept for fiction and knows what they are', () => {
    expect(readPhone('07700 900000', 'GB')).toMatchObject({ country: 'GB', kind: 'mobile' })
    expect(readPhone('020 7946 0999', 'GB')).toMatchObject({ country: 'GB', kind: 'landline' })
    expect(readPhone('612 555 0177', 'US')).toMatchObject({ country: 'US', kind: 'unknown' })
    expect(readPhone('+1 888 234 5678')).toMatchObject({ kind: 'toll-free' })
  })

  it('agrees with google-libphonenumber on the example numbers of every country', () => {
    const kinds = {
      [PhoneNumberType.MOBILE]: 'mobile',
      [PhoneNumberType.FIXED_LINE]: 'landline',
      [PhoneNumberType.TOLL_FREE]: 'toll-free',
    } as Record<number, string>
    for (const country of getCountries()) {
      // Tristan da Cunha shares its numbers with Saint Helena, and the two libraries file them differently
      if (country === 'TA') continue
      const example = getExampleNumber(country as CountryCode, examples)!
      const outside = google.parse(example.formatNational(), country)
      if (!google.isValidNumber(outside)) continue
      const expected = {
        ok: true,
        e164: google.format(outside, PhoneNumberFormat.E164),
        kind: kinds[google.getNumberType(outside)] ?? 'unknown',
      }
      for (const typed of [example.formatNational(), example.formatInternational(), example.getURI()]) {
        expect([country, typed, readPhone(typed, country)]).toEqual([country, typed, expect.objectContaining(expected)])
      }
    }
  })
})

describe('zonesOfNumber', () => {
  it('finds the zones of the longest prefix', () => {
    expect(zonesOfNumber('+18085550142', table)).toEqual(['Pacific/Honolulu'])
    expect(zonesOfNumber('+15035550118', table)).toEqual(['America/Los_Angeles'])
    expect(zonesOfNumber('+447700900123', table)).toContain('Europe/London')
  })

  it('gives every zone where a number has no place, and none where nothing is known', () => {
    expect(zonesOfNumber('+61412345678', table)).toHaveLength(6)
    expect(zonesOfNumber('+999', table)).toEqual([])
  })
})
