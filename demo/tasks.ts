import { zonesOfPerson } from '../core/hours/places'
import { wallOf } from '../core/hours/schedule'
import { zoneRules } from '../core/hours/zones'
import { idAt, type Rows } from './rows'
import type { Staff } from './generate'

const MINUTE = 60_000

/** What sales and recruiting have promised for today: by colleague, in minutes from now. */
const PROMISED: { key: string, kind: 'task' | 'call-back', title: string, inMinutes: number }[] = [
  { key: 'ada', kind: 'call-back', title: 'Call back', inMinutes: -35 },
  { key: 'ada', kind: 'task', title: 'Send the prices for two long-johns', inMinutes: -10 },
  { key: 'ada', kind: 'call-back', title: 'Call back', inMinutes: 75 },
  { key: 'ada', kind: 'task', title: 'Ask the workshop about a third trike', inMinutes: 140 },
  { key: 'mika', kind: 'call-back', title: 'Call back', inMinutes: -20 },
  { key: 'noor', kind: 'call-back', title: 'Call back', inMinutes: 30 },
  { key: 'odile', kind: 'task', title: 'Listen to the call about the price', inMinutes: -15 },
  { key: 'odile', kind: 'task', title: 'Look at the offer before it goes out', inMinutes: 110 },
  { key: 'rafe', kind: 'task', title: 'Ask whether the new line is answered', inMinutes: 50 },
]

/** These own nobody: what they have to do is on the people of others. */
const ownNobody = new Set(['odile', 'rafe'])

/** Tasks on people of each colleague, due by the clock where the person is. */
export function taskRows(rows: Rows, staff: Staff, now: Date) {
  const taken = new Set<string>()
  return PROMISED.flatMap(({ key, kind, title, inMinutes }) => {
    const colleagueId = staff.colleagues[key]!
    const person = rows.records.find(one => (one.ownerId === colleagueId || ownNobody.has(key)) && ['lead', 'candidate'].includes(one.module) && one.region && rows.contacts.has(one.id) && !taken.has(one.id) && rows.phones.some(phone => phone.recordId === one.id && phone.kind === 'mobile'))
    const zone = person && zonesOfPerson({ zone: person.zone ?? null, country: person.country ?? null, region: person.region ?? null }, [])[0]
    if (!person || !zone) return []
    taken.add(person.id)
    const due = new Date(Math.round((now.getTime() + inMinutes * MINUTE) / (5 * MINUTE)) * 5 * MINUTE)
    const madeAt = new Date(now.getTime() - 26 * 60 * MINUTE)
    return [{ id: idAt(madeAt), recordId: person.id, kind, title, colleagueId, madeBy: colleagueId, madeAt, wallTime: wallOf(due.getTime(), zoneRules(zone)!), wallZone: zone, dueAt: due, callId: null }]
  })
}
