import fc from 'fast-check'
import smpp from 'smpp'
import { readHeader, writeHeader } from '~~/core/smpp/header'
import { cutText, DATA_CODING, readPart, wholeText, type Part } from '~~/core/smpp/parts'
import { readReceipt } from '~~/core/smpp/receipt'
import { readStatus, whyNotBound } from '~~/core/smpp/status'
import { measureText } from '~~/core/text/measure'
import { NATIONAL_LANGUAGES } from '~~/core/text/national'
import { fromSeptets, toSeptets } from '~~/core/text/septets'

const { consts, errors, gsmCoder } = smpp
/** By its name in the registry's package. */
const status = (name: string) => errors[name]!

const words = fc.oneof(
  fc.string({ maxLength: 400 }),
  fc.string({ unit: fc.constantFrom(...'abc €{}[]~|\\^éÇñ§\n'), maxLength: 500 }),
  fc.string({ unit: fc.constantFrom(...'abcĞİŞçğışáíóúãõêôÀ€{}'), maxLength: 500 }),
  fc.string({ unit: 'grapheme', maxLength: 200 }),
)

describe('a text in octets', () => {
  it('is cut into as many parts as were measured, each short enough, and says the same once put together', () => {
    fc.assert(fc.property(words, fc.subarray([...NATIONAL_LANGUAGES]), fc.nat(255), (text, languages, reference) => {
      fc.pre(text !== '')
      const measure = measureText(text, languages)
      const parts = cutText(text, measure, reference)
      expect(parts).toHaveLength(measure.parts)
      const perOctet = measure.encoding === 'GSM-7' ? 7 / 8 : 1
      for (const { header, octets } of parts) expect(header.length + Math.ceil(octets.length * perOctet)).toBeLessThanOrEqual(140)
      const readBack = ({ header, octets }: Part) =>
        readPart(Uint8Array.from([...header, ...octets]), DATA_CODING[measure.encoding], header.length > 0)
      const read = parts.map(readBack)
      expect(read.map(({ text }) => text).join('')).toBe(text)
      if (parts.length > 1)
        expect(read.map(({ joined }) => joined)).toEqual(parts.map((_, i) => ({ reference, part: i + 1, of: parts.length })))
      expect(readBack(wholeText(text, measure)).text).toBe(text)
    }))
  })

  // the registry's own implementation of the protocol, with tables of its own
  it('has the septets that another library gives', () => {
    const text = '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?¡ABCXYZÄÖÑÜ§¿abcxyzäöñüà^{}[~]|€'
    expect(toSeptets(text, null)!.flat()).toEqual([...gsmCoder.encode(text, 0)])
    expect(toSeptets('İstanbul’da', 'turkish-both')).toBeNull()
    expect(toSeptets('ĞğıŞşİç€', 'turkish-locking')!.flat()).toEqual([...gsmCoder.encode('ĞğıŞşİç€', 1)])
    expect(fromSeptets(gsmCoder.encode('Olá, não é amanhã?', 3), 'portuguese-both')).toBe('Olá, não é amanhã?')
  })

  it('shows what no table has as something that can be read', () => {
    // 3GPP TS 23.038, 6.2.1.1: behind an escape, a code of no entry is that of the default table
    expect(fromSeptets([0x1B, 0x41, 0x42], null)).toBe('AB')
    expect(fromSeptets([0x1B, 0x1B, 0x41], null)).toBe(' A')
    expect(fromSeptets([0x41, 0x1B], null)).toBe('A')
    expect(readPart(Uint8Array.from([0x47, 0xFC]), DATA_CODING['Latin-1'], false).text).toBe('Gü')
  })
})

describe('a PDU', () => {
  it('has the octets of the sample in SMPP 3.4, 3.2.3', () => {
    const pdu = new smpp.PDU('bind_transmitter', {
      sequence_number: 1, system_id: 'SMPP3TEST', password: 'secret08', system_type: 'SUBMIT1', interface_version: 0, addr_ton: 1, addr_npi: 1, address_range: '',
    })
    expect(pdu.toBuffer().toString('hex').toUpperCase()).toBe([
      '0000002F', '00000002', '00000000', '00000001', Buffer.from('SMPP3TEST\0secret08\0SUBMIT1\0').toString('hex').toUpperCase(), '00', '01', '01', '00',
    ].join(''))
  })
})

describe('a header', () => {
  it('names the text, the part and the tables', () => {
    expect(writeHeader({ joined: { reference: 0x2A, part: 2, of: 3 }, shift: null })).toEqual([5, 0, 3, 0x2A, 3, 2])
    expect(writeHeader({ joined: null, shift: 'portuguese-both' })).toEqual([6, 0x24, 1, 3, 0x25, 1, 3])
    expect(writeHeader({ joined: null, shift: null })).toEqual([])
  })

  it('is read with a reference of sixteen bits, among elements that nobody knows, and where it is cut off', () => {
    expect(readHeader(Uint8Array.from([6, 8, 4, 1, 2, 3, 1, 0x41])).joined).toEqual({ reference: 0x0102, part: 1, of: 3 })
    expect(readHeader(Uint8Array.from([9, 0x05, 2, 9, 9, 0, 3, 7, 2, 2])))
      .toMatchObject({ joined: { reference: 7, part: 2, of: 2 }, length: 10 })
    expect(readHeader(Uint8Array.from([5, 0, 3, 7, 2]))).toMatchObject({ joined: null, length: 5 })
    // the third of two is a text by itself
    expect(readHeader(Uint8Array.from([5, 0, 3, 7, 2, 3])).joined).toBeNull()
  })

  it('never stumbles, whatever comes', () => {
    fc.assert(fc.property(fc.uint8Array({ maxLength: 180 }), fc.nat(255), fc.boolean(), (octets, coding, hasHeader) => {
      expect(typeof readPart(octets, coding, hasHeader).text).toBe('string')
    }))
  })
})

describe('a delivery receipt', () => {
  it('is read as SMPP 3.4 shows it in Appendix B', () => {
    expect(readReceipt('id:1234567890 sub:001 dlvrd:001 submit date:2611271200 done date:2611271201 stat:DELIVRD err:000 text:Hi Iris, it is'))
      .toEqual({ ref: '1234567890', fate: 'delivered', code: null })
    expect(readReceipt('id:0f3a-9 sub:001 dlvrd:000 submit date:2611271200 done date:2611280000 stat:EXPIRED err:000 text:'))
      .toEqual({ ref: '0f3a-9', fate: 'not-delivered', code: 'recipient-unreachable' })
    expect(readReceipt('id:7 stat:ENROUTE')).toEqual({ ref: '7', fate: 'on-the-way', code: null })
  })

  it('is read however it is written, and by its own fields first', () => {
    expect(readReceipt('stat:UNDELIV ID:7 Err:001')).toEqual({ ref: '7', fate: 'not-delivered', code: 'network-001' })
    expect(readReceipt('id:12 stat:DELIVRD', { messageId: 'C', messageState: consts.MESSAGE_STATE.REJECTED }))
      .toEqual({ ref: 'C', fate: 'not-delivered', code: 'blocked' })
    expect(readReceipt('', { messageId: 'C', messageState: consts.MESSAGE_STATE.DELIVERED })).toEqual({ ref: 'C', fate: 'delivered', code: null })
  })

  it('is none where it names no message, or no fate', () => {
    for (const text of ['', 'Hi Ada', 'id:7', 'stat:DELIVRD', 'id:7 stat:WHATEVER']) expect(readReceipt(text)).toBeNull()
  })
})

describe('an answer', () => {
  it('is told apart by what follows from it', () => {
    expect(readStatus(status('ESME_ROK'))).toEqual({ is: 'taken' })
    for (const busy of [status('ESME_RTHROTTLED'), status('ESME_RMSGQFUL')]) expect(readStatus(busy)).toEqual({ is: 'busy' })
    for (const later of [status('ESME_RSYSERR'), status('ESME_RX_T_APPN'), status('ESME_RINVBNDSTS')]) expect(readStatus(later)).toEqual({ is: 'try-later' })
    for (const [refusal, code] of [
      [status('ESME_RINVMSGLEN'), 'too-long'], [status('ESME_RINVSRCADR'), 'sender-unknown'], [status('ESME_RINVDSTADR'), 'recipient-unknown'],
      [status('ESME_RINVSRCTON'), 'sender-unknown'], [status('ESME_RINVSRCNPI'), 'sender-unknown'],
      [status('ESME_RINVDSTTON'), 'recipient-unknown'], [status('ESME_RINVDSTNPI'), 'recipient-unknown'], [0x4FF, 'smpp-0x000004ff'],
    ] as const) expect(readStatus(refusal)).toEqual({ is: 'refused', code })
    expect(whyNotBound(status('ESME_RINVPASWD'))).toBe('The password is wrong.')
    expect(whyNotBound(status('ESME_RINVSYSID'))).toContain('system id')
    expect(whyNotBound(status('ESME_RALYBND'))).toContain('connected already')
    expect(whyNotBound(status('ESME_RINVSYSTYP'))).toContain('system type')
    expect(whyNotBound(status('ESME_RBINDFAIL'))).toContain('did not let the account in')
  })
})
