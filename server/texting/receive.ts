import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { readIntent } from '~~/core/consent/intent'
import { isE164 } from '~~/core/phone/e164'
import { messageEntry } from '~~/core/timeline/kinds'
import { measureText } from '~~/core/text/measure'
import type { CarrierEvent } from '../carriers/port'
import { proposeOptOut } from '../consent/decide'
import { writeConsent } from '../consent/ledger'
import { heardFrom, lockNumber } from '../consent/number'
import { read, tx } from '../db/door'
import { firm, line, message, textMessage } from '../db/schema'
import { addJob } from '../jobs/add'
import { CAME_IN } from '../jobs/kinds'
import { log } from '../log/log'
import { appendEntry } from '../activity/append'
import { withWhom } from '../activity/with-whom'
import { touchContact } from '../activity/contact'
import { announceConversation, openConversation } from './conversations'
import type { Line } from './lines'
import { oweAnswer } from './owed'
import { fetchPicturesLater } from './pictures-in'
import { freshRef } from './refs'
import { answerByItself } from './send'

type Incoming = Extract<CarrierEvent, { kind: 'received' }>

/**
 * A text came in: it goes on the timelines of those it is with, who may be nobody yet, and waits
 * for an answer. STOP, START and HELP are answered at once and wait for nobody.
 */
export async function receiveText(carrier: string, incoming: Incoming, now: Date): Promise<void> {
  await tx(async (database) => {
    const [to] = await database.select().from(line).where(eq(line.e164, incoming.to))
    if (!to || to.carrier !== carrier) {
      log.warn({ ref: incoming.ref }, 'a text came in for a line that is not ours')
      return
    }
    const number = await lockNumber(incoming.from)
    await heardFrom(incoming.from, incoming.at)
    const conversationId = await openConversation(to.id, incoming.from, now, true)
    const stored = await store(carrier, to, conversationId, incoming, now)
    // what is no number, such as a name, can be shown and read, and nothing goes there
    const intent = isE164(incoming.from) ? intentNow(incoming.text, number.texts) : 'none'
    if (intent === 'none' || intent === 'maybe-stop') {
      await oweAnswer(conversationId, incoming.at)
      await addJob({
        kind: CAME_IN,
        key: stored.activityId,
        lane: conversationId,
        payload: { conversationId, what: 'text', activityId: stored.activityId, at: incoming.at.getTime() },
        dueAt: now,
      })
    }
    if (intent === 'maybe-stop') await proposeOptOut(incoming.from, stored.activityId, now)
    if (intent === 'stop' || intent === 'start' || intent === 'help') await obey(intent, to, incoming, stored.messageId, now)
    announceConversation(conversationId, to, intent === 'none' || intent === 'maybe-stop')
  })
}

/**
 * START and its kin are an order only to somebody who had stopped; else "yes" is an answer like any other.
 * HELP from somebody who has stopped waits for a person, who may call: no text leaves any more.
 */
function intentNow(text: string, texts: 'unknown' | 'agreed' | 'refused') {
  const intent = readIntent(text)
  if (intent === 'start' && texts !== 'refused') return 'none'
  return intent === 'help' && texts === 'refused' ? 'none' : intent
}

async function store(carrier: string, to: Line, conversationId: string, incoming: Incoming, now: Date) {
  return tx(async (database) => {
    const messageId = uuid()
    const activityId = uuid()
    const holders = await withWhom(to.id, incoming.from)
    const { encoding, units, parts } = measureText(incoming.text)
    const pictures = incoming.pictures ?? []
    await appendEntry({
      id: activityId,
      at: incoming.at,
      kind: messageEntry('text', 'in'),
      colleagueId: null,
      messageId,
      words: incoming.text,
      privateLineId: to.private ? to.id : null,
    }, holders.with, { recordIds: holders.along, lineId: to.id })
    await database.insert(message).values({
      id: messageId, kind: 'text', conversationId, activityId, direction: 'in', state: 'received',
      madeAt: incoming.at, leavesAt: incoming.at, carrier, carrierRef: incoming.ref, ref: freshRef(), pictures: pictures.length,
    })
    await database.insert(textMessage).values({ messageId, encoding, units, parts })
    await fetchPicturesLater(messageId, carrier, pictures, now)
    await touchContact(activityId, incoming.at)
    return { messageId, activityId }
  })
}

async function obey(order: 'stop' | 'start' | 'help', to: Line, incoming: Incoming, messageId: string, now: Date): Promise<void> {
  const [{ name } = { name: 'us' }] = await read(database => database.select({ name: firm.name }).from(firm))
  const before = await lockNumber(incoming.from)
  if (order === 'help')
    return answerByItself(
      to,
      incoming.from,
      `${name}: you have our texts because you asked us or work with us. Write here and a person answers. Text STOP to end them.`,
      false,
      now,
    )
  const already = order === 'stop' && before.texts === 'refused'
  await writeConsent({
    e164: incoming.from,
    at: incoming.at,
    kind: order === 'stop' ? 'refused' : 'agreed',
    covers: 'texts',
    how: 'text',
    words: incoming.text,
    messageId,
  })
  // one confirming text after a revocation, without advertising, and no second one (47 CFR 64.1200(a)(12), from memory)
  if (order === 'stop' && !already)
    await answerByItself(
      to,
      incoming.from,
      `${name}: you get no more texts from any of our numbers. Text START if you want them again.`,
      true,
      now,
    )
  if (order === 'start') await answerByItself(to, incoming.from, `${name}: texts are on again. Text STOP to end them.`, false, now)
}
