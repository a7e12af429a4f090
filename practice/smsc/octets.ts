import type { Part } from '../carrier/air'
import { NO_TABLES } from '../carrier/tables'

/** What a short message is and in which characters (SMPP 3.4, 5.2.12 and 5.2.19): with a header; a receipt; UCS-2. */
export const [WITH_HEADER, RECEIPT, UCS2] = [0x40, 0x04, 0x08]

/** Elements of a header (3GPP TS 23.040, 9.2.3.24): joined parts, and the national tables. */
const [JOINED, SINGLE, LOCKING] = [0x00, 0x24, 0x25]

export interface Fields {
  esm_class: number
  data_coding: number
  short_message?: Buffer
  message_payload?: Buffer
  sar_msg_ref_num?: number
  sar_total_segments?: number
  sar_segment_seqnum?: number
}

/** A short message as it goes through the air. Read apart from the application's own reading, on purpose. */
export function partOf(fields: Fields): Part {
  const octets = fields.message_payload?.length ? fields.message_payload : fields.short_message ?? Buffer.alloc(0)
  const header = (fields.esm_class & WITH_HEADER) !== 0 ? elementsOf(octets.subarray(1, 1 + octets[0]!)) : new Map<number, number[]>()
  const data = [...(fields.esm_class & WITH_HEADER) !== 0 ? octets.subarray(1 + octets[0]!) : octets]
  const [reference = 0, of = 1, number = 1] = header.get(JOINED) ?? besideIt(fields)
  return {
    reference,
    index: number - 1,
    of,
    coding: fields.data_coding === UCS2 ? 'ucs2' : 'gsm',
    tables: { ...NO_TABLES, single: header.get(SINGLE)?.[0] ?? 0, locking: header.get(LOCKING)?.[0] ?? 0 },
    data,
  }
}

const besideIt = ({ sar_msg_ref_num: reference, sar_total_segments: of, sar_segment_seqnum: number }: Fields): number[] =>
  of && number ? [reference ?? 0, of, number] : []

function elementsOf(header: Buffer): Map<number, number[]> {
  const elements = new Map<number, number[]>()
  for (let at = 0; at + 2 <= header.length; at += 2 + header[at + 1]!)
    elements.set(header[at]!, [...header.subarray(at + 2, at + 2 + header[at + 1]!)])
  return elements
}

/** A part of what somebody has written, as the SMS centre delivers it. */
export function fieldsOf({ reference, index, of, coding, data }: Part): Fields {
  const header = of > 1 ? [5, JOINED, 3, reference, of, index + 1] : []
  return { esm_class: of > 1 ? WITH_HEADER : 0, data_coding: coding === 'ucs2' ? UCS2 : 0, short_message: Buffer.from([...header, ...data]) }
}

/** A receipt as SMPP 3.4 shows it in Appendix B. */
export function receiptText({ id, stat, err, at }: { id: string, stat: string, err: string, at: Date }): string {
  const moment = at.toISOString().replace(/\D/g, '').slice(2, 12)
  return `id:${id} sub:001 dlvrd:${stat === 'DELIVRD' ? '001' : '000'} submit date:${moment} done date:${moment} stat:${stat} err:${err} text:`
}
