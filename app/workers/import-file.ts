import { expose } from 'comlink'
import { decodeText, type TextEncoding } from '~~/core/formats/decode'
import { readCsv, type Delimiter, type Table } from '~~/core/formats/read-csv'
import { isVCard, readVCards } from '~~/core/formats/read-vcard'
import { fateOf, mailKey, nameKey, rowKey, type Fate } from '~~/core/import/fate'
import { readRow, type ImportedRow, type LeftOut, type ReadingRules } from '~~/core/import/read-row'
import { dayOrderOf, readsTwoWays, type DayOrder } from '~~/core/import/days'
import { PIECE_ROWS, type ImportRules, type LookUp } from '~~/shared/import'
import type { Module } from '~~/shared/modules'

/** A file as it was read, with its first rows. */
export interface OpenedFile {
  headings: string[]
  samples: string[][]
  total: number
  encoding: TextEncoding
  delimiter: Delimiter | null
  /** Whether the first row was read as headings; cards always name what they hold. */
  headed: boolean | null
  dayOrders: (DayOrder | null)[]
  /** Of columns that could be read either way: a cell that would be another day. */
  twoWays: (string | null)[]
  /** What of the file cannot be right. */
  warnings: string[]
}

export type FateKind = Fate['kind']

/** What will become of all rows, counted. */
export interface Foreseen { counts: Record<FateKind, number>, companies: number, partly: number }

/** Rows of one fate, or those that are taken without one of their cells. */
export type RowChoice = FateKind | 'partly'

/** One row with what will become of it. */
export interface ForeseenRow { number: number, name: string, about: string[], fate: Fate, with: string | null, leftOut: LeftOut[] }

type Told = (done: number) => void

const SAMPLES = 40
const ROWS_A_QUESTION = 1_000
const ROWS_AT_ONCE = 1_000

/**
 * Reads a file, says what would become of each row, and sends it, all beside the page, which stays free.
 * One file at a time.
 */
class ImportFile {
  private table: Table = { headings: [], rows: [], warnings: [] }
  private fates: Fate[] = []
  private names: string[] = []
  private about: string[][] = []
  private leftOut: LeftOut[][] = []
  private partners = new Map<string, string>()
  private turn = 0

  /** @param headed whether its first row is headings; without it, that is told by what stands there */
  async open(file: File, headed?: boolean): Promise<OpenedFile> {
    const { text, encoding } = decodeText(new Uint8Array(await file.arrayBuffer()))
    const csv = isVCard(text) ? null : readCsv(text, headed)
    this.table = csv ?? readVCards(text)
    const { headings, rows, warnings } = this.table
    const columns = headings.map((_, i) => rows.slice(0, 5_000).map(row => row[i] ?? ''))
    const dayOrders = columns.map(dayOrderOf)
    return {
      headings,
      samples: rows.slice(0, SAMPLES),
      total: rows.length,
      encoding,
      delimiter: csv?.delimiter ?? null,
      headed: csv?.headed ?? null,
      dayOrders,
      twoWays: columns.map((cells, i) => dayOrders[i] ? null : readsTwoWays(cells) ?? null),
      warnings,
    }
  }

  /**
   * Decides what would become of every row, as the server will; a newer question ends an older one.
   *
   * @returns null if another question came between
   * @throws ProblemDetails
   */
  async foresee(module: Module, rules: ImportRules, reading: Omit<ReadingRules, 'headings'>, tell: Told): Promise<Foreseen | null> {
    const turn = ++this.turn
    const known = { numbers: new Map<string, string>(), mails: new Map<string, string>(), names: new Map<string, string>() }
    const seen = new Map<string, number>()
    const companies = new Set<string>()
    const counts: Foreseen['counts'] = { 'new': 0, 'joined': 0, 'left-out': 0, 'there-already': 0, 'refused': 0 }
    const [fates, names, about, leftOut]: [Fate[], string[], string[][], LeftOut[][]] = [[], [], [], []]
    this.partners = new Map()
    for (let start = 0; start < this.table.rows.length; start += ROWS_A_QUESTION) {
      const readings = this.table.rows
        .slice(start, start + ROWS_A_QUESTION)
        .map(cells => readRow(cells, { ...reading, headings: this.table.headings }))
      const rows = readings.flatMap(one => (one.ok ? [one.row] : []))
      const found = await askAbout(module, rules.country, rows)
      if (turn !== this.turn) return null
      this.learn(found, known)
      for (const row of rows) row.leftOut.push(...notMeant(row, found))
      const made = new Map(rows.map((row, i) => [rowKey(row), found.made[i] ?? 0]))
      const there = new Set(found.companies)
      for (const one of readings) {
        const fate: Fate = one.ok
          ? this.fateOfRow(one.row, { known, seen, made, rules, number: fates.length + 1 })
          : { kind: 'refused', reasons: one.problems.map(({ heading, reason }) => (heading ? `${heading}: ${reason}` : reason)) }
        if (one.ok && fate.kind === 'new' && one.row.columns.company && !there.has(nameKey(one.row.columns.company)))
          companies.add(nameKey(one.row.columns.company))
        counts[fate.kind]++
        fates.push(fate)
        names.push(one.ok ? one.row.name : '')
        leftOut.push(one.ok && (fate.kind === 'new' || fate.kind === 'joined') ? one.row.leftOut : [])
        about.push(
          one.ok
            ? [
                ...one.row.phones.map(({ e164, typed }) => e164 ?? `${typed} (not usable)`),
                one.row.columns.mail ?? '',
                one.row.columns.company ?? '',
                one.row.columns.city ?? '',
                ...one.row.people,
              ].filter(Boolean)
            : this.table.rows[fates.length - 1]!.filter(Boolean).slice(0, 4),
        )
      }
      tell(fates.length)
    }
    Object.assign(this, { fates, names, about, leftOut })
    return { counts, companies: companies.size, partly: leftOut.filter(cells => cells.length > 0).length }
  }

  private learn({ numbers, mails, names }: LookUp, known: Record<'numbers' | 'mails' | 'names', Map<string, string>>): void {
    for (const [map, found] of [
      [known.numbers, numbers],
      [known.mails, mails],
      [known.names, names],
    ] as const) {
      for (const [key, { id, name }] of Object.entries(found)) {
        if (!map.has(key)) map.set(key, id)
        this.partners.set(id, name)
      }
    }
  }

  private fateOfRow(
    row: ImportedRow,
    {
      known,
      seen,
      made,
      rules,
      number,
    }: {
      known: Record<'numbers' | 'mails' | 'names', Map<string, string>>
      seen: Map<string, number>
      made: Map<string, number>
      rules: ImportRules
      number: number
    },
  ): Fate {
    const key = rowKey(row)
    const before = seen.get(key) ?? 0
    seen.set(key, before + 1)
    if (before < (made.get(key) ?? 0)) return { kind: 'there-already' }
    const fate = fateOf(
      row,
      { number: e164 => known.numbers.get(e164), mail: mail => known.mails.get(mail), name: name => known.names.get(name) },
      rules.duplicates,
    )
    if (fate.kind === 'new') {
      const self = `row ${number}`
      this.partners.set(self, `row ${number}, ${row.name}`)
      for (const { e164 } of row.phones) if (e164 && !known.numbers.has(e164)) known.numbers.set(e164, self)
      if (row.columns.mail && !known.mails.has(mailKey(row.columns.mail))) known.mails.set(mailKey(row.columns.mail), self)
      if (!known.names.has(nameKey(row.name))) known.names.set(nameKey(row.name), self)
    }
    return fate
  }

  /** Rows of one choice, as many as are asked for. */
  rowsOf(kind: RowChoice | null, start: number, count: number): ForeseenRow[] {
    const found: ForeseenRow[] = []
    let passed = 0
    for (const [i, fate] of this.fates.entries()) {
      if (kind !== null && (kind === 'partly' ? this.leftOut[i]!.length === 0 : fate.kind !== kind)) continue
      if (passed++ < start) continue
      found.push({
        number: i + 1,
        name: this.names[i]!,
        about: this.about[i]!,
        fate,
        leftOut: this.leftOut[i]!,
        with: 'to' in fate ? (this.partners.get(fate.to) ?? null) : null,
      })
      if (found.length === count) break
    }
    return found
  }

  /** Sends every row; what was sent already is not taken twice. */
  async send(importId: string, tell: Told): Promise<void> {
    const { rows } = this.table
    for (let start = 0; start < rows.length; start += ROWS_AT_ONCE) {
      await ask(`/api/imports/${importId}/rows`, 'PUT', { place: start / PIECE_ROWS, rows: rows.slice(start, start + ROWS_AT_ONCE) })
      tell(Math.min(rows.length, start + ROWS_AT_ONCE))
    }
  }
}

/** Whom and what a row names that nobody here can be. */
function notMeant({ columns, people }: ImportedRow, { notOwners, notPeople, notMatters }: LookUp): LeftOut[] {
  const not = (heading: string, text: string | undefined, why: Record<string, string>) =>
    text && Object.hasOwn(why, text) ? [{ heading, text, reason: why[text]! }] : []
  return [
    ...not('Owner', columns.owner, notOwners),
    ...people.flatMap(named => not('People on it', named, notPeople)),
    ...not('Belongs to', columns.about, notMatters),
  ]
}

async function askAbout(module: Module, country: string, rows: ImportedRow[]): Promise<LookUp> {
  const some = (values: (string | null | undefined)[]) => [...new Set(values.filter((value): value is string => !!value))]
  return ask<LookUp>('/api/imports/look-up', 'POST', {
    module,
    numbers: some(rows.flatMap(row => row.phones.map(({ e164 }) => e164))),
    mails: some(rows.map(row => row.columns.mail)),
    names: some(rows.map(row => nameKey(row.name))),
    companies: some(rows.map(row => row.columns.company)),
    country,
    owners: some(rows.map(row => row.columns.owner)),
    people: some(rows.flatMap(row => row.people)),
    matters: some(rows.map(row => row.columns.about)),
    keys: rows.map(rowKey),
  })
}

const MOST_TRIES = 8

/** @throws ProblemDetails, as it is: an Error would lose them on its way to the page */
async function ask<T = unknown>(path: string, method: string, body: object): Promise<T> {
  const send = () => fetch(path, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }).catch(() => null)
  let answer = await send()
  // it had more to do than it could, and had not begun with this
  for (let tries = 1; answer?.status === 503 && tries < MOST_TRIES; tries++) {
    await new Promise(resolve => setTimeout(resolve, tries * 1_000))
    answer = await send()
  }
  if (!answer?.ok) throw await answer?.json().catch(() => null) ?? null
  return await answer.json().catch(() => null) as T
}

expose(new ImportFile())
export type { ImportFile }
