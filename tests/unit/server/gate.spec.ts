import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { GateFacts } from '~~/core/message/gate'
import { writeConsent } from '~~/server/consent/ledger'
import { tx } from '~~/server/db/door'
import { bulkPerson, bulkText, closedDay, firm as firmTable, line, message, record } from '~~/server/db/schema'
import { addClosedDay } from '~~/server/hours/set-up'
import { readRecord } from '~~/server/pages/record'
import { changeRecord } from '~~/server/records/save'
import { markNotTheirs } from '~~/server/records/wrong-number'
import { takeEvent } from '~~/server/texting/events'
import { sendText } from '~~/server/texting/send'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, form, later, makeFirm, makeLead, NIGHT, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())
beforeEach(() => void fakeCarrier())
afterEach(() => tx(async (database) => {
  await database.update(firmTable).set({ textingOn: true })
  await database.update(line).set({ state: 'active' })
  await database.delete(closedDay)
}))

const NINE = { wallTime: '2026-12-01T09:00', zone: 'Pacific/Honolulu' }
const NINE_THERE = new Date('2026-12-01T19:00:00Z')
const MINUTE = 60_000

interface Waiting { id: string, recordId: string, e164: string }

/** A text that waits, written by day for nine in the morning there unless it is said otherwise. */
async function waiting(values: object = { later: NINE }, at = DAY): Promise<Waiting> {
  const lead = await makeLead(firm.ada)
  const { id } = await sendText(firm.ada, textTo(lead.phoneId, firm.portland, values), at)
  return { id, ...lead }
}

async function becomes(text: Waiting, at = NINE_THERE): Promise<string> {
  await drain(at)
  const [{ state, code } = { state: 'gone', code: null }] = await tx(database =>
    database.select().from(message).where(eq(message.id, text.id)),
  )
  return code ? `${state} ${code}` : state
}

const change = (text: Waiting, values: Partial<typeof message.$inferInsert>) =>
  tx(database => database.update(message).set(values).where(eq(message.id, text.id)))

/**
 * What happens to each fact of the gate after a text was written, so that the text is held: proof that the gate reads it, and
 * reads it then. A new fact does not compile until it stands here.
 */
const MEANWHILE: Record<keyof GateFacts, () => Promise<[Waiting, Date?]>> = {
  now: async () => [await waiting(), later(NINE_THERE, 16 * MINUTE)],
  textingOn: async () => {
    const text = await waiting()
    await tx(database => database.update(firmTable).set({ textingOn: false }))
    return [text]
  },
  lineOpen: async () => {
    const text = await waiting()
    await tx(database => database.update(line).set({ state: 'paused' }).where(eq(line.id, firm.portland.id)))
    return [text]
  },
  numberUsable: async () => {
    const text = await waiting()
    await markNotTheirs(firm.ada, text.recordId, text.e164, DAY)
    return [text]
  },
  // it waits, and is held by nobody
  paused: async () => {
    const text = await waiting()
    const bulkId = uuid()
    await change(text, { origin: 'bulk' })
    await tx(async (database) => {
      await database.insert(bulkText).values({ id: bulkId, occasionId: bulkId, name: 'Winter tyres', modules: ['lead'], madeBy: firm.ada.id, madeAt: DAY, state: 'paused' })
      await database.insert(bulkPerson).values({
        id: text.id, bulkId, occasionId: bulkId, recordId: text.recordId, position: 0, standing: 'texted', e164: text.e164, lineId: firm.portland.id,
        zones: 'Pacific/Honolulu', words: 'Hi', changedAt: DAY,
      })
    })
    return [text]
  },
  optedOut: async () => {
    const text = await waiting()
    await writeConsent({ e164: text.e164, at: DAY, kind: 'refused', covers: 'texts', how: 'by-hand', words: 'Please do not.' })
    return [text]
  },
  zones: async () => {
    const text = await waiting()
    await tx(database => database.update(record).set({ zone: 'Asia/Tokyo' }).where(eq(record.id, text.recordId)))
    return [text]
  },
  wish: async () => {
    const text = await waiting()
    await tx(database => database.update(record).set({ wishFrom: 17, wishTo: 20 }).where(eq(record.id, text.recordId)))
    return [text]
  },
  // at night a text may only answer somebody, and an hour later it answers nobody any more
  lastHeardAt: async () => {
    const lead = await makeLead(firm.ada)
    await takeEvent(
      'practice',
      { id: uuid(), at: NIGHT, kind: 'received', ref: uuid(), from: lead.e164, to: firm.portland.e164, text: 'Are you awake?' },
      NIGHT,
    )
    const { id } = await sendText(firm.ada, textTo(lead.phoneId, firm.portland), later(NIGHT, 59 * MINUTE))
    return [{ id, ...lead }, later(NIGHT, 61 * MINUTE)]
  },
  meantFor: async () => {
    const text = await waiting()
    await change(text, { leavesAt: later(NINE_THERE, -16 * MINUTE) })
    return [text]
  },
  // a day off has been put in over it
  house: async () => {
    const text = await waiting()
    await addClosedDay(firm.rafe, { id: uuid(), place: 'US-HI', day: '2026-12-01', name: 'Stocktaking' }, DAY)
    return [text]
  },
  // written at once it might wait for hours
  scheduled: async () => {
    const text = await waiting({ later: null })
    await change(text, { wallTime: '2026-11-25T08:00', wallZone: 'Pacific/Honolulu' })
    return [text, later(DAY, 16 * MINUTE)]
  },
  nightAllowed: async () => {
    const text = await waiting({ later: { ...NINE, wallTime: '2026-12-01T05:00' }, nightAllowed: true })
    await change(text, { nightAllowed: false })
    return [text, later(NINE_THERE, -4 * 60 * MINUTE)]
  },
}

/** What becomes of it. */
const THEN: Record<keyof GateFacts, string> = {
  now: 'held late',
  textingOn: 'held texting-off',
  lineOpen: 'held line-closed',
  numberUsable: 'held number-unusable',
  optedOut: 'held opted-out',
  zones: 'held night',
  wish: 'held wish',
  house: 'held closed-day',
  lastHeardAt: 'held night',
  meantFor: 'held late',
  scheduled: 'held late',
  nightAllowed: 'held night',
  paused: 'waiting',
}

describe('the gate', () => {
  it('lets a text leave of which nothing has changed', async () => {
    expect(await becomes(await waiting())).toBe('accepted')
  })

  it.each(Object.keys(MEANWHILE) as (keyof GateFacts)[])('reads %s when the text is about to leave', async (fact) => {
    const [text, at] = await MEANWHILE[fact]()
    expect(await becomes(text, at)).toBe(THEN[fact])
  })

  it('holds a text to a number that was taken off its record, or corrected there', async () => {
    const [gone, corrected] = [await waiting(), await waiting()]
    const values = { firstName: 'Iris', lastName: 'Holm', region: 'HI', country: 'US' }
    for (const [{ recordId }, phones] of [[gone, []], [corrected, [{ label: 'mobile', typed: '808 555 0199' }]]] as const) {
      await changeRecord(
        firm.ada,
        recordId,
        { ...form({ ...values, phones }), was: null, version: (await readRecord(firm.ada, recordId, DAY)).version },
        DAY,
      )
    }
    expect([await becomes(gone), await becomes(corrected)]).toEqual(['held number-unusable', 'held number-unusable'])
  })

  it('holds an answer in a conversation as well, once its number is found to be somebody else’s', async () => {
    const lead = await makeLead(firm.ada)
    await takeEvent(
      'practice',
      { id: uuid(), at: DAY, kind: 'received', ref: uuid(), from: lead.e164, to: firm.portland.e164, text: 'Call me in December.' },
      DAY,
    )
    const [found] = await tx(database => database.query.conversation.findMany({ where: (table, { eq }) => eq(table.remote, lead.e164) }))
    const { id } = await sendText(
      firm.ada,
      { ...textTo('', firm.portland, { later: NINE }), phoneId: null, conversationId: found!.id },
      DAY,
    )
    await markNotTheirs(firm.ada, lead.recordId, lead.e164, DAY)
    expect(await becomes({ id, ...lead })).toBe('held number-unusable')
  })
})
