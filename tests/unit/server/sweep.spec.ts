import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import {
  callEvent, carrierEvent, conversation, invitation, job, knock, knownDevice, mailedWait, setAsideEvent, signIn, smppSentPart,
} from '~~/server/db/schema'
import { sweep } from '~~/server/sweep'
import { workOutSchedule } from '~~/server/texting/schedule'
import { sendText } from '~~/server/texting/send'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
})

const ago = (days: number) => later(DAY, -days * 86_400_000)
const aJob = (values: object) => ({ id: uuid(), kind: 'nothing', key: uuid(), lane: uuid(), orderAt: ago(200), dueAt: ago(200), ...values })
const countOf = async (table: string) => (await tx(database => database.execute<{ n: number }>(sql`select count(*)::int as n
  from ${sql.identifier(table)}`))).rows[0]!.n

describe('sweeping', () => {
  it('takes away what has served its time, in pieces, and nothing that is still needed', async () => {
    await tx(async (database) => {
      await database
        .insert(job)
        .values([
          ...Array.from({ length: 7 }, () => aJob({ doneAt: ago(8) })),
          aJob({ doneAt: ago(6) }),
          aJob({}),
          aJob({ deadAt: ago(100) }),
        ])
      const event = (days: number) => ({
        id: uuid(),
        carrier: 'practice',
        kind: 'sent',
        carrierRef: uuid(),
        at: ago(days),
        receivedAt: ago(days),
      })
      await database.insert(carrierEvent).values([event(31), event(29)])
      await database.insert(callEvent).values([31, 29].map(days => ({ exchange: 'practice', id: uuid(), receivedAt: ago(days) })))
      const aside = (settledAt: Date | null) => ({
        id: uuid(),
        teller: 'practice',
        hash: uuid(),
        told: '{}',
        why: 'odd',
        at: ago(300),
        settledAt,
      })
      await database.insert(setAsideEvent).values([aside(ago(91)), aside(ago(89)), aside(null)])
      await database
        .insert(signIn)
        .values([ago(1), ago(-1)].map(endsAt => ({ tokenHash: uuid(), colleagueId: firm.ada.id, madeAt: ago(30), endsAt })))
      await database
        .insert(knownDevice)
        .values([181, 179].map(days => ({ tokenHash: uuid(), colleagueId: firm.ada.id, usedAt: ago(days) })))
      const conversationId = uuid()
      await database.insert(conversation).values({ id: conversationId, kind: 'text', lineId: firm.portland.id, remote: '+18085550142', lastAt: DAY })
      const knocked = (endedAt: Date | null) =>
        ({ id: uuid(), kind: 'question' as const, conversationId, aboutId: conversationId, at: ago(200), step: 'owner' as const, endedAt })
      await database.insert(knock).values([knocked(ago(31)), knocked(ago(29)), knocked(null)])
      await database.insert(mailedWait)
        .values([91, 89].map(days => ({ colleagueId: firm.ada.id, conversationId, since: ago(days + 1), at: ago(days) })))
      await database.insert(smppSentPart).values([31, 29].map(days => ({ carrier: 'wire', ref: uuid(), textRef: uuid(), sentAt: ago(days) })))
      const invited = (days: number) => ({
        id: uuid(), keyHash: uuid(), mail: 'tove@post.example', name: 'Tove', role: 'rep' as const, title: '', teamIds: [],
        madeBy: firm.rafe.id, madeAt: ago(days + 7), endsAt: ago(days),
      })
      await database.insert(invitation).values([invited(31), invited(29)])
    })
    expect(Object.values(await sweep(DAY, 3))).toEqual([7, 1, 1, 1, 1, 1, 1, 1, 1, 1])
    const tables = [
      'job', 'carrier_event', 'call_event', 'set_aside_event', 'smpp_sent_part', 'knock', 'mailed_wait', 'sign_in', 'invitation', 'known_device',
    ]
    expect(await Promise.all(tables.map(countOf))).toEqual([3, 1, 1, 2, 1, 2, 1, 1, 1, 1])
    expect(Object.values(await sweep(DAY, 3))).toEqual([0, 0, 0, 0, 0, 0, 0, 0, 0, 0])
  })
})

describe('working the schedule out again', () => {
  it('comes to every scheduled text, however many go in one piece', async () => {
    const { phoneId } = await makeLead(firm.ada)
    const times = ['09:00', '10:00', '11:00', '12:00', '13:00']
    for (const time of times)
      await sendText(firm.ada, textTo(phoneId, firm.portland, { later: { wallTime: `2026-12-01T${time}`, zone: 'Pacific/Honolulu' } }), DAY)
    await tx(database => database.execute(sql`update message set leaves_at = leaves_at + interval '1 hour' where wall_time is not null`))
    expect(await workOutSchedule(2)).toBe(times.length)
    expect(await workOutSchedule(2)).toBe(0)
  })
})
