import { setTimeout as pause } from 'node:timers/promises'
import { cutText, DATA_CODING, wholeText, type Part } from '~~/core/smpp/parts'
import { readStatus } from '~~/core/smpp/status'
import { capacityOf, measureText, type Coding } from '~~/core/text/measure'
import type { LongTexts } from '~~/shared/carriers'
import type { CarrierText, HandOverAnswer } from '../port'
import type { Kept } from './keep'
import { Unanswered } from './link'
import type { PduFields } from './protocol'

/** A number in international form, of the numbering plan for telephones (SMPP 3.4, 5.2.5 and 5.2.6). */
const [INTERNATIONAL, TELEPHONE] = [1, 1]
/** The user data begins with a header (5.2.12). */
const WITH_HEADER = 0x40
/** Tell whether it has arrived or not (5.2.17). */
const TELL = 1
/** After so long it is asked again whether it has room. */
const NO_ROOM_MS = 1_000
/** For so long the further parts of a text are tried whose first part it has; well within a job's lease. */
const PARTS_WITHIN_MS = 15_000

export type Submitted = HandOverAnswer & { refs?: string[] }

/**
 * Hands over a text as one or more short messages, one after the other, so that none goes whose first part was refused.
 *
 * @returns the answer; `refs` of several parts, the first of which stands for the text
 */
export async function submitText(kept: Kept, text: CarrierText, longTexts: LongTexts, reference: number): Promise<Submitted> {
  // there is no way for pictures in this protocol
  if (text.pictures.length > 0) return { kind: 'refused', code: 'pictures-not-allowed' }
  const coding = codingOf(text)
  const cut = longTexts === 'whole' ? [wholeText(text.text, coding)] : cutText(text.text, coding, reference)
  const refs: string[] = []
  const until = Date.now() + PARTS_WITHIN_MS
  for (let i = 0; i < cut.length;) {
    let answer
    try {
      const pdu = await kept.ask('submit_sm', { ...addresses(text), ...carried(cut[i]!, coding, longTexts, { i, of: cut.length, reference }) })
      answer = readStatus(pdu.command_status)
      if (answer.is === 'taken') refs.push(String(pdu.message_id))
    }
    catch (error) {
      if (!(error instanceof Unanswered)) throw error
      if (error.asked || i > 0) return { kind: 'not-known' }
      return { kind: 'try-later', afterMs: null, certain: true, code: 'carrier-unreachable' }
    }
    if (answer.is === 'taken') i++
    // a part of it is on its way: the rest follows, or nobody knows what arrives
    else if (i > 0 && (answer.is === 'refused' || Date.now() > until)) return { kind: 'not-known' }
    else if (i > 0) await pause(NO_ROOM_MS / 2)
    else if (answer.is === 'busy') return { kind: 'no-room', afterMs: NO_ROOM_MS }
    else if (answer.is === 'try-later') return { kind: 'try-later', afterMs: null, certain: true, code: 'carrier-unreachable' }
    else return { kind: 'refused', code: answer.code }
  }
  return { kind: 'accepted', ref: refs[0]!, charge: null, refs }
}

function codingOf({ text, shift }: CarrierText): Coding {
  if (shift) return { encoding: 'GSM-7', shift }
  const { encoding } = measureText(text)
  return { encoding, shift: null }
}

const addresses = ({ from, to }: CarrierText): PduFields => ({
  source_addr_ton: INTERNATIONAL,
  source_addr_npi: TELEPHONE,
  source_addr: from.replace('+', ''),
  dest_addr_ton: INTERNATIONAL,
  dest_addr_npi: TELEPHONE,
  destination_addr: to.replace('+', ''),
  registered_delivery: TELL,
})

interface Place { i: number, of: number, reference: number }

function carried({ header, octets }: Part, coding: Coding, longTexts: LongTexts, { i, of, reference }: Place): PduFields {
  const named = longTexts === 'fields' && of > 1
  // beside the part instead of in its header, in which only the tables are left then
  const kept = named ? header.slice(JOIN_OCTETS + 1) : header.slice(1)
  // what is more than one short message would be cut off, or refused, where it is carried as one
  const isLong = longTexts === 'whole' && octets.length > capacityOf(coding).single * (coding.encoding === 'UCS-2' ? 2 : 1)
  const message = Buffer.from([...kept.length > 0 ? [kept.length, ...kept] : [], ...octets])
  return {
    esm_class: kept.length > 0 ? WITH_HEADER : 0,
    data_coding: DATA_CODING[coding.encoding],
    ...(isLong ? { message_payload: message } : { short_message: message }),
    ...(named && { sar_msg_ref_num: reference, sar_total_segments: of, sar_segment_seqnum: i + 1 }),
  }
}

/** The element of a header that joins parts, with its identifier and length (3GPP TS 23.040, 9.2.3.24.1). */
const JOIN_OCTETS = 5
