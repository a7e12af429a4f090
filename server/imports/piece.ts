import { valueIn } from '~~/core/fields/own'
import { v7 as uuid } from 'uuid'
import { fateOf, mailKey, nameKey, rowKey, type DuplicateBy } from '~~/core/import/fate'
import { noteOf, type ImportedRow, type ReadingRules, type RowReading } from '~~/core/import/read-row'
import type { Added, ImportRules, Outcome } from '~~/shared/import'
import { isPersonModule, type Module } from '~~/shared/modules'
import { can, type Asker } from '~~/shared/permissions'
import type { phone, record } from '../db/schema'
import { hashOf, type KnownRecord, type Seen } from './known'
import type { Called } from './linked'
import { ownerCalled, type Belonging, type Owners } from './owners'
import { placeOf, type Places } from './place'

type StoredRecord = typeof record.$inferSelect
type NewRecord = typeof record.$inferInsert
export type NewPhone = typeof phone.$inferInsert

/** What columns of a row are called in the table of records. */
const COLUMNS = {
  'first-name': 'firstName',
  'last-name': 'lastName',
  'title': 'title',
  'mail': 'mail',
  'street': 'street',
  'city': 'city',
  'region': 'region',
  'postcode': 'postcode',
  'country': 'country',
  'zone': 'zone',
} as const

/** What the database knows about the rows of a piece. */
export interface KnownOfPiece extends Places {
  numbers: Map<string, KnownRecord>
  mails: Map<string, KnownRecord>
  names: Map<string, KnownRecord>
  companies: Map<string, KnownRecord>
  /** Records to which rows may be joined, and the numbers they have. */
  records: Map<string, StoredRecord>
  phones: Map<string, NewPhone[]>
  seen: Map<string, Seen>
  owners: Owners
  /** As the rows call those who are on a record, and what it hangs on. */
  people: Called
  matters: Called
  /** Who is on the records to which rows may be joined. */
  on: Map<string, string[]>
}

/** A record that rows are joined to, with all that they add. */
interface Joined { to: StoredRecord, added: Added }

/** Everything that a piece writes. */
export interface Written {
  outcomes: Outcome[]
  records: NewRecord[]
  phones: NewPhone[]
  joined: Joined[]
  notes: { recordId: string, words: string }[]
  /** People to be put on records. */
  puts: { recordId: string, personId: string }[]
  /** Numbers whose people want no texts, as the file says; whatever else becomes of their rows. */
  optedOut: string[]
  /** By hash: how often it was seen, and how often something was made of it. */
  seen: Map<string, Seen>
}

const MOST_PHONES = 10
const MOST_TAGS = 20

/** Decides what becomes of the rows of a piece, one after the other, each knowing of those before it. */
export class Piece {
  readonly written: Written = { outcomes: [], records: [], phones: [], joined: [], notes: [], puts: [], optedOut: [], seen: new Map() }
  private readonly fresh = new Map<string, NewRecord>()
  private readonly freshCompanies = new Map<string, string>()

  constructor(
    private readonly asker: Asker,
    private readonly module: Module,
    private readonly rules: ImportRules,
    private readonly known: KnownOfPiece,
    private readonly now: Date,
  ) {}

  add(reading: RowReading): void {
    const outcome: Outcome = reading.ok
      ? this.decide(reading.row)
      : { kind: 'refused', reasons: reading.problems.map(({ heading, reason }) => (heading ? `${heading}: ${reason}` : reason)) }
    this.written.outcomes.push(outcome)
    if (reading.ok && reading.row.optedOut && outcome.kind !== 'refused')
      this.written.optedOut.push(...reading.row.phones.flatMap(({ e164 }) => e164 ?? []))
  }

  private decide(row: ImportedRow): Outcome {
    // as the file says it, before anything is left out
    const hash = hashOf(rowKey(row))
    const belongs = this.belongingOf(row)
    if (typeof belongs === 'string') return { kind: 'refused', reasons: [belongs] }
    const before = this.known.seen.get(hash) ?? { made: 0, seen: 0 }
    const here = this.written.seen.get(hash) ?? { made: 0, seen: 0 }
    const isThere = before.seen + here.seen < before.made
    this.written.seen.set(hash, { made: here.made + (isThere ? 0 : 1), seen: here.seen + 1 })
    if (isThere) return { kind: 'there-already' }
    const fate = fateOf(
      row,
      {
        number: e164 => this.known.numbers.get(e164)?.id,
        mail: mail => this.known.mails.get(mail)?.id,
        name: name => this.known.names.get(name)?.id,
      },
      this.rules.duplicates,
    )
    if (fate.kind === 'left-out') return { kind: 'left-out', id: fate.to, by: fate.by }
    return fate.kind === 'joined' ? this.join(row, fate.to, fate.by) : this.make(row, belongs)
  }

  /** Whose the row becomes: of whom it names, or of whom the new ones belong to; or why nobody can have it. */
  private belongingOf(row: ImportedRow): Belonging | string {
    const named = row.columns.owner
    const called = named ? ownerCalled(named, this.known.owners, this.asker) : null
    if (called && typeof called !== 'string') return called
    if (named && called) row.leftOut.push({ heading: 'Owner', text: named, reason: called })
    const found = this.known.owners.get(this.rules.ownerId)
    if (!found) return 'Whoever was to own it is in no team any more.'
    return can(this.asker, 'record.import', found) ? found : 'You may not bring records in for this colleague.'
  }

  private make(row: ImportedRow, belongs: { ownerId: string, teamId: string }): Outcome {
    const id = uuid()
    const company = this.companyOf(row, belongs)
    const made: NewRecord = {
      ...belongs,
      ...commonColumns(row),
      id,
      module: this.module,
      name: row.name,
      companyId: company?.id ?? null,
      aboutId: this.aboutOf(row),
      ...placeOf(this.module, row, this.known),
      tags: row.tags,
      fields: row.fields,
      version: 1,
      madeAt: this.now,
    }
    this.written.records.push(made)
    this.fresh.set(id, made)
    const phones = row.phones.map((one, position) => ({ ...one, id: uuid(), recordId: id, position }))
    this.written.phones.push(...phones)
    this.putOn(id, row)
    this.noteFrom(row, id)
    this.remember(row, { id, name: row.name })
    return { kind: 'new', id, ...(company?.made && { company: company.id }), ...partly(row) }
  }

  private noteFrom(row: ImportedRow, recordId: string): void {
    const words = noteOf(row)
    if (words) this.written.notes.push({ recordId, words })
  }

  /** What the record hangs on, where the row names one that there is. */
  private aboutOf(row: ImportedRow): string | null {
    const named = row.columns.about
    const found = named ? this.known.matters.get(named) : undefined
    if (named && found && 'not' in found) row.leftOut.push({ heading: 'Belongs to', text: named, reason: found.not })
    return found && 'id' in found ? found.id : null
  }

  /** Puts those on it whom the row names and who are not on it yet. */
  private putOn(recordId: string, row: ImportedRow): string[] {
    const has = new Set(this.known.on.get(recordId))
    const before = has.size
    for (const named of row.people) {
      const found = this.known.people.get(named)!
      if ('id' in found) has.add(found.id)
      else row.leftOut.push({ heading: 'People on it', text: named, reason: found.not })
    }
    const personIds = [...has].slice(before)
    this.written.puts.push(...personIds.map(personId => ({ recordId, personId })))
    this.known.on.set(recordId, [...has])
    return personIds
  }

  /** Rows that come later find this one. */
  private remember(row: ImportedRow, self: KnownRecord): void {
    for (const { e164 } of row.phones) if (e164 && !this.known.numbers.has(e164)) this.known.numbers.set(e164, self)
    if (row.columns.mail && !this.known.mails.has(mailKey(row.columns.mail))) this.known.mails.set(mailKey(row.columns.mail), self)
    if (!this.known.names.has(nameKey(row.name))) this.known.names.set(nameKey(row.name), self)
  }

  /** The company of this name, made if there is none. */
  private companyOf(
    { columns }: ImportedRow,
    { ownerId, teamId }: { ownerId: string, teamId: string },
  ): { id: string, made: boolean } | null {
    if (!columns.company) return null
    const key = nameKey(columns.company)
    const there = this.known.companies.get(key)?.id ?? this.freshCompanies.get(key)
    if (there) return { id: there, made: false }
    const id = uuid()
    this.freshCompanies.set(key, id)
    this.written.records.push({
      ownerId,
      teamId,
      id,
      module: 'company',
      name: columns.company,
      tags: [],
      fields: {},
      version: 1,
      madeAt: this.now,
    })
    return { id, made: true }
  }

  /** Fills what is empty, and adds numbers and tags that are not there; nothing is written over. */
  private join(row: ImportedRow, id: string, by: DuplicateBy): Outcome {
    const fresh = this.fresh.get(id)
    if (fresh) {
      this.fillFresh(fresh, row)
      this.putOn(id, row)
      this.noteFrom(row, id)
      return { kind: 'joined', id, by, added: null, ...partly(row) }
    }
    const to = this.known.records.get(id)
    if (!to || !can(this.asker, 'record.edit', to)) return { kind: 'left-out', id, by }
    const companies = this.freshCompanies.size
    const added = this.addedTo(to, row)
    const company = this.freshCompanies.size > companies ? added?.companyId : undefined
    if (added) this.written.joined.push({ to, added })
    this.noteFrom(row, id)
    return { kind: 'joined', id, by, added, ...(company && { company }), ...partly(row) }
  }

  private addedTo(to: StoredRecord, row: ImportedRow): Added | null {
    const columns = Object.fromEntries(
      Object.entries(commonColumns(row)).filter(([key, value]) => value && !to[key as keyof StoredRecord]),
    ) as Record<string, string>
    const fields = Object.fromEntries(Object.entries(row.fields).filter(([key]) => valueIn(to.fields, key) === undefined))
    const tags = row.tags.filter(tag => !to.tags.includes(tag)).slice(0, MOST_TAGS - to.tags.length)
    const phones = this.newPhones(to.id, row)
    const company = to.companyId ? null : this.companyOf(row, to)
    const aboutId = to.aboutId ? null : this.aboutOf(row)
    const personIds = this.putOn(to.id, row)
    const counted = Object.keys(columns).length + Object.keys(fields).length + tags.length + phones.length + personIds.length
    if (counted === 0 && !company && !aboutId) return null
    // rows that come later see what this one added
    Object.assign(to, columns, {
      fields: { ...to.fields, ...fields },
      tags: [...to.tags, ...tags],
      ...(company && { companyId: company.id }),
      ...(aboutId && { aboutId }),
    })
    return {
      columns,
      fields,
      tags,
      phoneIds: phones.map(one => one.id),
      ...(company && { companyId: company.id }),
      ...(aboutId && { aboutId }),
      ...(personIds.length > 0 && { personIds }),
    }
  }

  private newPhones(recordId: string, row: ImportedRow): NewPhone[] {
    const has = this.known.phones.get(recordId) ?? []
    // one that was found to be somebody else's stays so, whatever a file says
    const same = (one: { e164?: string | null, typed: string }) =>
      has.some(other => (one.e164 ? other.e164 === one.e164 || other.wrongE164 === one.e164 : other.typed === one.typed))
    const phones = row.phones
      .filter(one => !same(one))
      .slice(0, Math.max(0, MOST_PHONES - has.length))
      .map((one, i) => ({ ...one, id: uuid(), recordId, position: has.length + i }))
    this.known.phones.set(recordId, [...has, ...phones])
    this.written.phones.push(...phones)
    return phones
  }

  private fillFresh(fresh: NewRecord, row: ImportedRow): void {
    for (const [key, value] of Object.entries(commonColumns(row)))
      if (value && !fresh[key as keyof NewRecord]) Object.assign(fresh, { [key]: value })
    fresh.fields = { ...row.fields, ...fresh.fields }
    fresh.tags = [...new Set([...(fresh.tags ?? []), ...row.tags])].slice(0, MOST_TAGS)
    this.known.phones.set(
      fresh.id,
      this.written.phones.filter(({ recordId }) => recordId === fresh.id),
    )
    this.newPhones(fresh.id, row)
  }
}

const partly = ({ leftOut }: ImportedRow) => leftOut.length > 0 ? { partly: true as const } : {}

/** What the row says of a record's columns; of the others, nothing. */
function commonColumns({ columns }: ImportedRow): Partial<Record<typeof COLUMNS[keyof typeof COLUMNS], string>> {
  const said: Partial<Record<typeof COLUMNS[keyof typeof COLUMNS], string>> = {}
  for (const key in COLUMNS) if (columns[key]) said[COLUMNS[key as keyof typeof COLUMNS]] = columns[key]
  return said
}

/** How the rows of an import are read. */
export const readingRules = (
  module: Module,
  headings: string[],
  { matching, country, dayOrders }: Pick<ImportRules, 'matching' | 'country' | 'dayOrders'>,
  targets: ReadingRules['targets'],
): ReadingRules => ({ people: isPersonModule(module), headings, matching, targets, country, dayOrders })
