import { eq, sql } from 'drizzle-orm'
import { wishOf } from '~~/core/hours/wish'
import { mayLeave, type GateFacts, type Verdict } from '~~/core/message/gate'
import { lockNumbers, type NumberState } from '../consent/number'
import { read, tx } from '../db/door'
import { readHouse, type House } from '../hours/house'
import { uuidArray } from '../db/instants'
import { activityContent, activityOnRecord, bulkPerson, bulkText, colleague, conversation, firm, line, message, phone, record, textMessage } from '../db/schema'
import { placesOf, zonesOf } from '../records/phones'
import { WISH_COLUMNS } from '../records/wish'

/** A text at the gate: what decides on it, and what its carrier is to be asked. */
export type AtGate = Awaited<ReturnType<typeof readAll>>[number]

/**
 * Asks the rules for each text right before it is handed over, whoever set it off and whenever. The number's lock is
 * kept until the end of the transaction: after an opt-out has committed no hand-over begins.
 */
export async function askGate(messageIds: string[], now: Date): Promise<{ text: AtGate, verdict: Verdict }[]> {
  return tx(async () => {
    const texts = await readAll(messageIds)
    const numbers = await lockNumbers(texts.map(one => one.remote))
    const house = await readHouse(now)
    return texts.map(text => ({ text, verdict: verdictOn(text, numbers.get(text.remote)!, house, now) }))
  })
}

function verdictOn(text: AtGate, number: NumberState, house: House, now: Date): Verdict {
  if (text.confirmsOptOut) return { leaves: true }
  return mayLeave(factsOf(text, number, house, now))
}

/** Every fact of the gate as it is now: none is taken from when the text was written. */
function factsOf(text: AtGate, number: NumberState, house: House, now: Date): GateFacts {
  return {
    now: now.getTime(),
    textingOn: text.textingOn,
    lineOpen: text.lineActive,
    numberUsable: text.numberUsable,
    paused: text.paused,
    optedOut: number.texts === 'refused',
    zones: zonesOf({ zone: text.zone, country: text.country, region: text.region }, text.remote),
    house: house(placesOf(text, text.remote)),
    wish: wishOf(text),
    lastHeardAt: number.lastHeardAt?.getTime() ?? null,
    meantFor: text.leavesAt.getTime(),
    scheduled: text.wallTime !== null,
    nightAllowed: text.nightAllowed,
  }
}

/** The record for which it was written still has the number, and none on which it stands has found it to be somebody else's. */
const NUMBER_USABLE = sql<boolean>`(
  (${message.recordId} is null or exists (select 1 from ${phone} p where p.record_id = ${message.recordId}
    and p.e164 = ${conversation.remote}))
  and not exists (
    select 1 from ${activityOnRecord} s join ${phone} p on p.record_id = s.record_id
    where s.activity_id = ${message.activityId} and s.along_line_id is null and p.wrong_e164 = ${conversation.remote}
      and p.unusable = 'not-theirs'))`

/** For everybody, or its writer is an admin, who tries it before the others may. */
const TEXTING_ON = sql<boolean>`(coalesce((select ${firm.textingOn} from ${firm}), false)
  or exists (select 1 from ${colleague} c where c.id = ${message.authorId} and c.role = 'admin'))`

/** The bulk text that it belongs to does not go on. */
const PAUSED = sql<boolean>`(coalesce(${message.origin}, '') in ('bulk', 'bulk-answer') and exists (
  select 1 from ${bulkPerson} b join ${bulkText} t on t.id = b.bulk_id where b.id = ${message.id} and t.state = 'paused'))`

async function readAll(messageIds: string[]) {
  return read(database =>
    database
      .select({
        id: message.id,
        state: message.state,
        shift: textMessage.shift,
        pictures: message.pictures,
        acceptedAt: message.acceptedAt,
        askedCarrier: message.carrier,
        confirmsOptOut: textMessage.confirmsOptOut,
        nightAllowed: message.nightAllowed,
        leavesAt: message.leavesAt,
        wallTime: message.wallTime,
        remote: conversation.remote,
        numberUsable: NUMBER_USABLE,
        paused: PAUSED,
        from: line.e164,
        carrier: line.carrier,
        lineActive: line.active,
        words: activityContent.words,
        textingOn: TEXTING_ON,
        zone: record.zone,
        country: record.country,
        region: record.region,
        ...WISH_COLUMNS,
      })
      .from(message)
      .innerJoin(textMessage, eq(textMessage.messageId, message.id))
      .innerJoin(conversation, eq(conversation.id, message.conversationId))
      .innerJoin(line, eq(line.id, conversation.lineId))
      .leftJoin(activityContent, eq(activityContent.activityId, message.activityId))
      .leftJoin(record, eq(record.id, message.recordId))
      .where(sql`${message.id} = any(${uuidArray(messageIds)})`),
  )
}
