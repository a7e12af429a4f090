import { v7 as uuid } from 'uuid'
import { newRef } from '../core/message/ref'
import { zonesOfPerson } from '../core/hours/places'
import { readPhone } from '../core/phone/read'
import { peaksOf } from '../core/sound/peaks'
import { madeUpSound } from '../practice/exchange/sound'
import type * as schema from '../server/db/schema'
import type { Staff } from './generate'
import { History, type Person } from './history'
import type { Rows } from './rows'

const MINUTE = 60_000
const WAV_HEADER = 44

type Record = Rows['records'][number]

/** What is under way when one comes in: a round, a call of which nobody has said how it went, a voicemail, a draft. */
export interface Alive {
  calls: (typeof schema.call.$inferInsert)[]
  recordings: (typeof schema.recording.$inferInsert)[]
  round: typeof schema.callRound.$inferInsert
  roundPeople: (typeof schema.roundPerson.$inferInsert)[]
  drafts: (typeof schema.draft.$inferInsert)[]
}

/** Also a text that failed, and one that is held: with their reasons. */
export function comeAlive(rows: Rows, staff: Staff, now: Date): Alive {
  const ago = (minutes: number) => new Date(now.getTime() - minutes * MINUTE)
  const { mika, noor, odile } = staff.colleagues as { mika: string, noor: string, odile: string }
  const { portland, halifax } = staff.lines as { portland: Staff['lines'][string], halifax: Staff['lines'][string] }
  const history = new History(rows)
  const [client, other, third] = peopleOf(rows, 'client', mika)
  const candidate = peopleOf(rows, 'candidate', noor).find(({ e164 }) => {
    const reading = readPhone(e164!)
    return reading.ok && reading.country === 'CA'
  })

  history.text(client!, portland, 'ours', 'Hi, Mika from Pannier & Post. The winter tyres are here. When may we bring them?', ago(190), mika)
  Object.assign(rows.messages.at(-1)!, { state: 'undelivered', code: 'recipient-unreachable' })
  history.text(other!, portland, 'ours', 'Hi, Mika from Pannier & Post. Shall I book the check-up for Friday?', ago(600), mika)
  Object.assign(rows.messages.at(-1)!, { state: 'held', code: 'night', handedAt: null, acceptedAt: null, settledAt: null, costMicros: null, carrier: null })

  const talked = history.ownCall(third!, 'out', mika, ago(25))
  const left = history.ownCall(candidate!, 'in', null, ago(38))
  history.callIsOwed(candidate!, halifax, ago(37.2), 'voicemail')
  const sound = madeUpSound('voicemail', 9_000, 1)
  const samples = Float32Array.from(sound.subarray(WAV_HEADER), byte => (byte - 128) / 128)
  const leads = rows.records.filter(one => one.module === 'lead' && one.teamId === staff.teams.sales).slice(0, 14)
  const roundId = uuid()
  return {
    calls: [
      {
        ...call(talked, portland.id, third!, ago(25)),
        direction: 'out',
        colleagueId: mika,
        answeredAt: ago(24.5),
        answeredBy: 'person',
        endedAt: ago(22),
        endWhy: 'hung-up',
        endSide: 'them',
      },
      {
        ...call(left, halifax.id, candidate!, ago(38)),
        direction: 'in',
        colleagueId: null,
        answeredAt: ago(37.5),
        answeredBy: 'machine',
        endedAt: ago(37.2),
        endWhy: 'hung-up',
        endSide: 'them',
      },
    ],
    recordings: [
      { id: uuid(), callId: left.callId, of: 'message', ms: 9_000, peaks: peaksOf(samples, 240), size: sound.length, sound, at: ago(37) },
    ],
    round: {
      id: roundId,
      name: 'Spring fair, second call',
      module: 'lead',
      teamId: staff.teams.sales,
      madeBy: odile,
      madeAt: ago(95),
      order: 'last-contact',
      notWithinHours: 24,
    },
    roundPeople: leads.map((lead, position) => ({
      roundId,
      recordId: lead.id!,
      position,
      zones: zonesOf(lead).join(' '),
      ...(position < 4 && { state: 'called' as const, colleagueId: mika, changedAt: ago(90 - position * 6) }),
    })),
    drafts: [
      {
        colleagueId: mika,
        key: `record ${client!.id}`,
        text: 'Hi, Mika again. Would Thursday at 7 suit you, before the',
        ref: newRef(() => 424_242),
        at: ago(8),
      },
    ],
  }
}

const call = ({ callId, activityId }: { callId: string, activityId: string }, lineId: string, { id, e164 }: Person, madeAt: Date) => ({
  id: callId,
  activityId,
  lineId,
  remote: e164!,
  recordId: id,
  exchange: 'practice',
  exchangeRef: `demo-${callId}`,
  madeAt,
  ringingAt: madeAt,
})

const zonesOf = ({ zone = null, country = null, region = null }: Record) => zonesOfPerson({ zone, country, region }, [])

/** People of a colleague who can be texted, with whom nothing is owed. */
function peopleOf(rows: Rows, module: Record['module'], ownerId: string): Person[] {
  return rows.records.filter(one => one.module === module && one.ownerId === ownerId).flatMap((one) => {
    const phone = rows.phones.find(({ recordId, kind, e164 }) => recordId === one.id && kind === 'mobile' && e164)
    const waits = [...rows.conversations.values()].some(({ remote, waitsSince }) => remote === phone?.e164 && waitsSince)
    const refused = rows.numbers.get(phone?.e164 ?? '')?.texts === 'refused'
    return phone && !waits && !refused ? [{ id: one.id!, companyId: one.companyId ?? null, e164: phone.e164!, name: one.name }] : []
  })
}
