import { createHash } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { ValidationError } from 'yup'
import type { Joined } from '~~/core/smpp/header'
import { readPart } from '~~/core/smpp/parts'
import { readReceipt, type Fate, type Receipt } from '~~/core/smpp/receipt'
import type { ToldBySmsc } from './told'
import type { Pdu } from './protocol'

/** What a short message is (esm_class, SMPP 3.4, 5.2.12): its kind in these bits, a receipt among them; and whether it has a header. */
const [KIND, RECEIPT, WITH_HEADER] = [0x3C, 0x04, 0x40]

export type Heard
  = | { is: 'receipt', receipt: Receipt }
    | { is: 'text', from: string, to: string, text: string, joined: Joined | null, hash: string }

/**
 * What an SMS centre delivers: a receipt for a text of ours, or a short message for us.
 *
 * @throws ValidationError for what is neither
 */
export function readDelivered(pdu: Pdu): Heard {
  const payload = octetsOf(pdu.message_payload)
  const octets = payload.length > 0 ? payload : octetsOf(pdu.short_message)
  const [esmClass, coding] = [Number(pdu.esm_class), Number(pdu.data_coding)]
  const { text, joined } = readPart(octets, coding, (esmClass & WITH_HEADER) !== 0)
  if ((esmClass & KIND) === RECEIPT || pdu.receipted_message_id) {
    const receipt = readReceipt(text, { messageId: wordOf(pdu.receipted_message_id), messageState: Number(pdu.message_state) || null })
    if (!receipt) throw new ValidationError('It is a receipt that names no message, or not what became of it.')
    return { is: 'receipt', receipt }
  }
  const [from, to] = [numberOf(pdu.source_addr), numberOf(pdu.destination_addr)]
  const hash = createHash('sha256').update(`${from} ${to} ${esmClass} ${coding} `).update(octets).digest('base64')
  return { is: 'text', from, to, text, joined: joined ?? besideIt(pdu), hash }
}

/** Where a part is numbered by fields beside it (sar_*). */
function besideIt({ sar_msg_ref_num: reference, sar_total_segments: of, sar_segment_seqnum: part }: Pdu): Joined | null {
  if (typeof reference !== 'number' || typeof of !== 'number' || typeof part !== 'number') return null
  return of > 1 && part >= 1 && part <= of ? { reference, part, of } : null
}

const octetsOf = (value: unknown): Buffer => Buffer.isBuffer(value) ? value : Buffer.alloc(0)
const wordOf = (value: unknown): string | null => typeof value === 'string' && value !== '' ? value : null

/** Numbers come in international form, with or without the sign (common practice, whatever the type of number says). */
function numberOf(address: unknown): string {
  const digits = String(address).replace(/^\+/, '')
  if (!/^[1-9]\d{6,14}$/.test(digits)) throw new ValidationError('It is from or to what is no number in international form.')
  return `+${digits}`
}

const REPORTS: Record<Fate, 'sent' | 'delivered' | 'undelivered'> = { 'on-the-way': 'sent', 'delivered': 'delivered', 'not-delivered': 'undelivered' }

/** A receipt has no name of its own: told twice, it is the same. */
export const toldOfText = (ref: string, fate: Fate, code: string | null, now: Date): ToldBySmsc =>
  ({ id: `${ref} ${fate}`, at: now.toISOString(), kind: REPORTS[fate], ref, code })

export const toldText = (id: string | null, from: string, to: string, text: string, now: Date): ToldBySmsc => {
  const name = id ?? uuid()
  return { id: name, at: now.toISOString(), kind: 'received', ref: name, from, to, text }
}
