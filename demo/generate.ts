import { wallTime } from '../core/hours/wall'
import { zoneRules } from '../core/hours/zones'
import type { PersonModule } from '../shared/modules'
import type { Pipeline } from '../shared/pipelines'
import { storedPhone } from '../server/records/phones'
import { COMPANIES, FIRST_NAMES, LAST_NAMES } from './names'
import { History, type LineRow, type Person } from './history'
import { MissedCalls, type DemoWordings } from './missed'
import { PLACES, type DemoPlace } from './places'
import { Random } from './random'
import { idAt, Rows } from './rows'
import { NOTES, THREADS } from './threads'

const DAY = 86_400_000
const MINUTE = 60_000
const PEOPLE: Record<PersonModule, number> = { lead: 170, client: 120, candidate: 106 }
const TITLES: Record<string, string[]> = {
  bakery: ['owner', 'head baker', 'shop manager'], shop: ['owner', 'shop manager', 'buyer'],
  clinic: ['practice manager', 'reception', 'head of home visits'], courier: ['dispatcher', 'owner', 'fleet manager'],
}

export interface Staff {
  colleagues: Record<string, string>
  teams: { sales: string, recruiting: string }
  lines: Record<string, LineRow & { country: string }>
  templates: Record<string, DemoWordings & { version: number }>
  /** By their keys; those of a module by its own name. */
  pipelines: Record<string, Pipeline>
}

/**
 * A year of Pannier & Post: companies, people, and what was written, called and noted.
 *
 * @param now the last texts are minutes older than this
 */
export function generate(staff: Staff, now: Date, seed = 20): Rows {
  const random = new Random(seed)
  const rows = new Rows()
  const history = new History(rows)
  const missed = new MissedCalls(history, staff.templates['Sorry I missed you']!, now)
  const numbers = new NumberStock(staff)
  const places = PLACES.flatMap(place => Array.from({ length: place.weight }, () => place))
  const companies = COMPANIES.map((company, index) => ({ ...company, place: places[(index * 7) % places.length]!, id: idAt(new Date(now.getTime() - 360 * DAY)) }))
  for (const company of companies) {
    const colleague = salesFor(company.place, staff)
    rows.records.push({ id: company.id, module: 'company', name: company.name, ownerId: colleague, teamId: staff.teams.sales, ...address(company.place), fields: { sector: company.sector }, madeAt: new Date(now.getTime() - 360 * DAY) })
  }

  const names = random.some(FIRST_NAMES.flatMap(first => random.some(LAST_NAMES, 8).map(last => ({ first, last }))), 400)
  for (const module of ['lead', 'client', 'candidate'] as const) {
    for (let i = 0; i < PEOPLE[module]; i++) {
      const { first, last } = names.pop()!
      const company = module === 'candidate' ? null : random.pick(companies)
      const place = company?.place ?? random.pick(places.filter(p => p.country !== 'GB'))
      const ownerId = module === 'candidate' ? staff.colleagues.noor! : salesFor(place, staff)
      const person = addPerson(rows, random, numbers, { module, first, last, place, ownerId, company, staff, now })
      live(history, missed, random, staff, person, module, { first, company: company?.name ?? '', place, ownerId }, now)
    }
  }
  // what somebody wrote last in these has long been dealt with on the telephone
  for (const conversation of rows.conversations.values()) Object.assign(conversation, { waitsSince: null, waitsFor: null })
  return rows
}

const TAGS = {
  lead: ['spring fair', 'hilly rounds', 'asked twice'],
  client: ['big fleet', 'early rounds', 'pays by the year'],
  candidate: ['own bike', 'weekends', 'winter rider'],
} as const

interface NewPerson {
  module: PersonModule
  first: string
  last: string
  place: DemoPlace
  ownerId: string
  company: { id: string, name: string, sector: string } | null
  staff: Staff
  now: Date
}

function addPerson(rows: Rows, random: Random, numbers: NumberStock, { module, first, last, place, ownerId, company, staff, now }: NewPerson): Person {
  const madeAt = new Date(now.getTime() - random.between(20, 350) * DAY)
  const id = idAt(madeAt)
  const mobile = storedPhone(numbers.next(place), place.country)
  rows.records.push({
    id, module, firstName: first, lastName: last, name: `${first} ${last}`,
    title: module === 'candidate' ? random.pick(['rider', 'mechanic']) : random.pick(TITLES[company!.sector]!),
    ownerId,
    teamId: module === 'candidate' ? staff.teams.recruiting : staff.teams.sales,
    companyId: company?.id ?? null,
    stageId: random.pick(staff.pipelines[module]!.stages).id,
    tags: [...(company ? [company.sector] : []), ...(random.chance(0.25) ? [random.pick(TAGS[module])] : [])],
    mail: random.chance(0.8) ? `${first}.${last}@${(company?.name ?? 'post').toLowerCase().replace(/[^a-z]+/g, '')}.example`.toLowerCase() : null,
    ...address(place),
    fields: fieldsFor(module, random, now),
    madeAt,
  })
  // a North American number does not tell whether it is a mobile: what is known is kept
  rows.phones.push({ id: idAt(madeAt), recordId: id, position: 0, label: 'mobile', ...mobile, kind: 'mobile' })
  if (random.chance(0.15) && company) {
    const desk = storedPhone(numbers.next(place), place.country)
    rows.phones.push({ id: idAt(madeAt), recordId: id, position: 1, label: company.sector, ...desk, kind: 'landline' })
  }
  return { id, companyId: company?.id ?? null, e164: mobile.e164, name: `${first} ${last}` }
}

/** What happened with a person: conversations, calls, notes, a stage, consent. */
function live(history: History, missed: MissedCalls, random: Random, staff: Staff, person: Person, module: PersonModule, about: { first: string, company: string, place: DemoPlace, ownerId: string }, now: Date): void {
  const me = Object.entries(staff.colleagues).find(([, id]) => id === about.ownerId)![0]
  const line = lineFor(module, about.place, staff)
  const count = random.pick([1, 1, 2, 2, 3, 4])
  const begun = random.between(30, 340)
  history.made(person, about.ownerId, new Date(now.getTime() - (begun + 1) * DAY))
  if (random.chance(0.7)) history.consent(person, 'agreed', 'form', 'I agree to texts about my request.', new Date(now.getTime() - (begun + 1) * DAY + MINUTE))
  const days = random.some(Array.from({ length: begun }, (_, i) => i + 2), count).sort((a, b) => b - a)
  random.some(THREADS[module], count).forEach((thread, index) => {
    let at = dayTime(random, about.place.zone, now.getTime() - days[index]! * DAY)
    const fill = { first: about.first, me: me[0]!.toUpperCase() + me.slice(1), co: about.company, day: random.pick(['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday']), time: random.pick(['8:30', '9', '10', '11:15', '2', '3:30']) }
    for (const { side, words } of thread) {
      history.text(person, line, side, words.replace(/\{(\w+)\}/g, (_, key: keyof typeof fill) => fill[key]), new Date(at), about.ownerId)
      at += random.between(1, 20) * MINUTE
    }
    if (random.chance(0.45)) {
      const outcome = random.pick(['answered', 'answered', 'no answer', 'voicemail'] as const)
      const called = at + random.between(10, 90) * MINUTE
      history.call(person, outcome === 'answered' && random.chance(0.3), about.ownerId, outcome, outcome === 'answered' ? random.between(40, 720) : random.between(8, 30), new Date(called))
      if (outcome === 'no answer') missed.text(person, line, { first: about.first, me: fill.me, ownerId: about.ownerId }, called)
    }
    if (random.chance(0.25)) history.note(person, about.ownerId, random.pick(NOTES[module]), new Date(at + 100 * MINUTE))
  })
  if (random.chance(0.04)) {
    const at = dayTime(random, about.place.zone, now.getTime() - random.between(1, 20) * DAY)
    history.consent(person, 'refused', 'text', 'STOP', new Date(at))
  }
}

function fieldsFor(module: PersonModule, random: Random, now: Date): Record<string, unknown> {
  const soon = () => new Date(now.getTime() + random.between(2, 90) * DAY).toISOString().slice(0, 10)
  const some = <T>(value: T, share = 0.8) => random.chance(share) ? value : undefined
  const bikes = random.pick(['2 long-johns', '1 long-john', '4 long-johns, 1 trike', '1 trike', '3 trikes', '6 long-johns'])
  const fields = {
    lead: () => ({ bikes: some(bikes), budget: some(random.between(2, 12) * 80), came_by: random.pick(['Website form', 'Market stall', 'A client told them', 'Saw a bike']), trial_day: some(soon(), 0.5) }),
    client: () => ({ bikes, lease_end: soon(), service_day: some(soon()), monthly: random.between(2, 12) * 80 }),
    candidate: () => ({ role_wanted: random.pick(['rider', 'mechanic']), available_from: some(soon()), hours_a_week: random.pick([16, 20, 24, 30, 38]) }),
  }
  return Object.fromEntries(Object.entries(fields[module]()).filter(([, value]) => value !== undefined))
}

function dayTime(random: Random, zone: string, near: number): number {
  const wall = wallTime(zoneRules(zone)!, near)
  return near + (random.between(9, 17) - wall.hour) * 60 * MINUTE - wall.minute * MINUTE + random.between(0, 40) * MINUTE
}

const address = ({ city, region, country, zone }: DemoPlace) => ({ city, region, country, zone })

function salesFor({ zone }: DemoPlace, { colleagues }: Staff): string {
  return ['America/Chicago', 'America/New_York', 'America/Halifax', 'America/St_Johns'].includes(zone) ? colleagues.mika! : colleagues.ada!
}

function lineFor(module: PersonModule, place: DemoPlace, { lines }: Staff): LineRow {
  if (module === 'candidate') return place.country === 'CA' ? lines.halifax! : lines.jobs!
  if (place.country === 'GB') return lines.bristol!
  if (place.country === 'CA') return lines.dartmouth!
  return place.zone === 'America/Chicago' || place.zone === 'America/New_York' ? lines.minneapolis! : lines.portland!
}

/** Hands out numbers kept for fiction, each once; those of our own lines and of the people told of by name are left out. */
class NumberStock {
  private readonly used = new Map<string, number>()
  private readonly taken: Set<string>

  constructor(staff: Staff) {
    this.taken = new Set([...Object.values(staff.lines).map(line => line.e164), ...RESERVED])
  }

  next(place: DemoPlace): string {
    for (const area of [...place.areas, ...SPARE[place.country]]) {
      for (let n = this.used.get(area) ?? 0; n < 100; n++) {
        this.used.set(area, n + 1)
        const typed = area === '07700' ? `07700 9002${String(n).padStart(2, '0')}` : `${area} 555 01${String(n).padStart(2, '0')}`
        const reading = storedPhone(typed, place.country)
        if (reading.e164 && !this.taken.has(reading.e164)) return typed
      }
    }
    throw new Error(`No number for fiction is left for ${place.city}.`)
  }
}

/** Numbers of the people whom the scenario names (demo/cast.ts). */
export const RESERVED = ['+18085550142', '+18085550109', '+19025550161', '+16125550177', '+15035550136', '+447700900161']
const SPARE: Record<DemoPlace['country'], string[]> = { US: ['360', '253', '952', '763', '458'], CA: ['506', '867'], GB: [] }
