import { isContact } from '../core/timeline/kinds'
import type { Module } from '../shared/modules'
import type { Staff } from './generate'
import { stageNamed } from './pipelines'
import type { Random } from './random'
import { idAt, type Rows } from './rows'

const DAY = 86_400_000
const CURRENCIES: { [country: string]: string } = { US: 'USD', CA: 'CAD', GB: 'GBP' }

const JOBS = [
  ['Rider, mornings', 'Portland', 'OR', 'US', 'riders'], ['Rider, afternoons', 'Portland', 'OR', 'US', 'riders'], ['Rider for parcels', 'Minneapolis', 'MN', 'US', 'riders'],
  ['Winter rider', 'Minneapolis', 'MN', 'US', 'riders'], ['Weekend rider', 'St. Paul', 'MN', 'US', 'riders'], ['Rider, bakery rounds', 'Halifax', 'NS', 'CA', 'riders'],
  ['Rider for a clinic', 'Halifax', 'NS', 'CA', 'riders'], ['Rider, early shift', 'Dartmouth', 'NS', 'CA', 'riders'], ['Rider with own trailer', 'Seattle', 'WA', 'US', 'riders'],
  ['Mechanic, workshop', 'Halifax', 'NS', 'CA', 'mechanics'], ['Mechanic on the road', 'Portland', 'OR', 'US', 'mechanics'], ['Wheel builder', 'Portland', 'OR', 'US', 'mechanics'],
  ['Mechanic, part time', 'Minneapolis', 'MN', 'US', 'mechanics'], ['Workshop lead', 'Bristol', null, 'GB', 'mechanics'],
] as const

const CASES = [
  'Loose racks on two bikes', 'Brakes squeal in the rain', 'Charger hums at night', 'Box lid does not close', 'Trike pulls to the left', 'Invoice sent twice', 'Spare key is missing', 'Battery lasts half a day',
  'Bike left outside the depot', 'Lights flicker on cobbles', 'Kickstand bent', 'Mudguard lost on the hill', 'Wrong colour delivered', 'Lock frozen shut', 'Motor cuts out uphill', 'Saddle too high for all of them', 'Two punctures in a week', 'Bell sounds like a duck',
]

const APPOINTMENTS: { [module in 'lead' | 'client' | 'candidate']: string[] } = {
  lead: ['Test ride', 'A look at the yard', 'Coffee and prices', 'Trial week begins', 'Trial week ends'],
  client: ['Check-up', 'Winter tyres', 'Talk about next year', 'A look at the loose racks'],
  candidate: ['Interview', 'Trial shift', 'Workshop day', 'Papers and contract'],
}

type Record = Rows['records'][number]

/** Deals, jobs with their candidates, cases, and what has a day: for the people and companies that there are. */
export function addMatters(rows: Rows, random: Random, staff: Staff, now: Date): void {
  const people = rows.records.filter(({ module }) => module === 'lead' || module === 'client' || module === 'candidate')
  const of = (module: Module) => people.filter(person => person.module === module)
  const day = (ahead: number) => new Date(now.getTime() + ahead * DAY).toISOString().slice(0, 10)
  const time = () => random.pick(['8:30', '9:00', '10:15', '11:00', '13:30', '14:00', '15:45', '17:00']).padStart(5, '0')
  const place = ({ city, region, country, zone }: Record) => ({ city, region, country, zone })

  for (const lead of random.some(of('lead').filter(({ companyId }) => companyId), 62)) deal('fleets', lead, `${lead.fields!.bikes ?? '1 long-john'}`, random.pick([0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 5]))
  for (const client of random.some(of('client'), 28)) deal('renewals', client, `${client.fields!.bikes}, another year`, random.pick([0, 0, 0, 1, 1, 2, 3, 4]))

  const candidates = of('candidate')
  for (const [name, city, region, country, pipeline] of JOBS) {
    const filled = random.chance(0.15)
    const { id, madeAt } = add('job', name, {
      ownerId: staff.colleagues.noor!, teamId: staff.teams.recruiting, city, region, country, pipelineId: staff.pipelines[pipeline]!.id, stageId: stageNamed(staff.pipelines.job!, filled ? 'Filled' : 'Open'),
      fields: { openings: random.between(1, 3), hours_a_week: random.pick([16, 20, 24, 30, 38]), pay: random.pick([21, 22.5, 24, 26]), currency: CURRENCIES[country]!, starts: day(random.between(5, 60)) },
    }, random.between(20, 90))
    const { stages } = staff.pipelines[pipeline]!
    for (const candidate of random.some(candidates.filter(one => (one.country === country || random.chance(0.05)) && (one.title === 'mechanic') === (pipeline === 'mechanics')), random.between(5, 14))) {
      link(id, candidate, madeAt, stages[random.pick([0, 0, 0, 1, 1, 2, 2, 3, 5])]!.id)
    }
  }

  for (const [index, name] of CASES.entries()) {
    const client = random.pick(of('client'))
    const made = add('case', name, { ...belongs(client), stageId: random.pick(staff.pipelines.case!.stages).id, fields: { urgency: random.pick(['Today', 'This week', 'This week', 'No hurry']) } }, 3 + index * 2)
    link(made.id, client, made.madeAt)
  }

  for (const person of random.some(people, 74)) {
    const module = person.module as keyof typeof APPOINTMENTS
    const ahead = random.between(-40, 28)
    const stage = ahead >= 0 ? (random.chance(0.06) ? 'Called off' : 'Planned') : random.pick(['Kept', 'Kept', 'Kept', 'Missed', 'Called off'])
    dated('appointment', random.pick(APPOINTMENTS[module]), person, stage, { day: day(ahead), time: time(), place: random.pick(['there', 'the yard', 'the workshop', 'by video']) })
  }
  for (const client of random.some(of('client'), 60)) {
    const [monthly, currency] = [Number(client.fields!.monthly), CURRENCIES[client.country!]!]
    const month = (offset: number) => new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth() + offset, 15))
    for (const offset of [-1, 0, 1]) {
      const due = month(offset)
      const paid = due.getTime() < now.getTime() && random.chance(0.88)
      dated('payment', `Lease for ${due.toLocaleString('en-US', { month: 'long', timeZone: 'UTC' })}`, client, paid ? 'Paid' : 'Due', { day: due.toISOString().slice(0, 10), amount: monthly, currency })
    }
    const ends = String(client.fields!.lease_end)
    dated('agreement', `Lease of ${client.fields!.bikes}`, client, 'Running', { day: ends, notice_by: new Date(Date.parse(ends) - 30 * DAY).toISOString().slice(0, 10) })
  }
  for (const client of random.some(of('client'), 22)) {
    const ahead = random.between(-30, 25)
    dated('handover', random.pick(['New bikes', 'Swap for winter tyres', 'Bikes back to the yard', 'One more long-john']), client, ahead >= 0 ? 'Planned' : 'Done', { day: day(ahead), time: time(), bikes: String(client.fields!.bikes) })
  }

  function belongs({ ownerId, teamId, companyId }: Record): Pick<Record, 'ownerId' | 'teamId' | 'companyId'> {
    return { ownerId, teamId, companyId }
  }

  function deal(key: string, person: Record, name: string, stage: number): void {
    const { id, stages } = staff.pipelines[key]!
    const made = add('deal', name, {
      ...belongs(person), ...place(person), pipelineId: id, stageId: stages[stage]!.id, stageSince: new Date(now.getTime() - random.between(1, 11) * DAY),
      fields: { value: 12 * Number(person.fields!.monthly ?? person.fields!.budget ?? 480), currency: CURRENCIES[person.country!]!, expected: day(random.between(-10, 70)) },
    }, random.between(12, 140))
    link(made.id, person, made.madeAt)
  }

  function dated(module: Module, name: string, person: Record, stage: string, fields: Record['fields']): void {
    const made = add(module, name, { ...belongs(person), stageId: stageNamed(staff.pipelines[module]!, stage), fields }, random.between(1, 20))
    link(made.id, person, made.madeAt)
  }

  function add(module: Module, name: string, values: Omit<Record, 'id' | 'module' | 'name' | 'madeAt'>, daysAgo: number): { id: string, madeAt: Date } {
    const madeAt = new Date(now.getTime() - daysAgo * DAY - random.between(0, 600) * 60_000)
    const id = idAt(madeAt)
    rows.records.push({ id, module, name, madeAt, ...values })
    const activityId = idAt(madeAt)
    rows.activities.push({ id: activityId, at: madeAt, kind: 'record-made', colleagueId: values.ownerId, messageId: null, data: {} })
    rows.shown.push({ recordId: id, at: madeAt, activityId, privateLineId: null })
    return { id, madeAt }
  }

  function link(recordId: string, person: Record, madeAt: Date, stageId: string | null = null): void {
    rows.links.push({ recordId, personId: person.id!, stageId, stageSince: stageId ? new Date(now.getTime() - random.between(0, 14) * DAY - random.between(1, 600) * 60_000) : null, madeAt })
  }
}

/** What happened with people since their matters were made shows on these too, as it does when it happens. */
export function showOnMatters(rows: Rows, { pipelines }: Staff): void {
  const ends = new Set(Object.values(pipelines).flatMap(({ stages }) => stages.filter(({ over }) => over).map(({ id }) => id)))
  const matters = new Map(rows.records.filter(({ module, stageId }) => ['deal', 'job', 'case'].includes(module) && !ends.has(stageId ?? '')).map(record => [record.id!, record]))
  const kinds = new Map(rows.activities.map(({ id, kind }) => [id!, kind]))
  const ofPerson = new Map<string, Rows['shown']>()
  for (const shown of rows.shown) if (!shown.viaRecordId) ofPerson.set(shown.recordId, [...ofPerson.get(shown.recordId) ?? [], shown])
  for (const { recordId, personId } of rows.links) {
    const matter = matters.get(recordId)
    if (!matter) continue
    for (const shown of ofPerson.get(personId) ?? []) {
      if (shown.at < matter.madeAt) continue
      rows.shown.push({ ...shown, recordId, viaRecordId: personId })
      if (isContact(kinds.get(shown.activityId)!)) rows.touch(matter, shown.at)
    }
  }
}
