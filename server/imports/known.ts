import { createHash } from 'node:crypto'
import { sql, type SQL } from 'drizzle-orm'
import { mailKey, nameKey } from '~~/core/import/fate'
import type { LookUp } from '~~/shared/import'
import { isPersonModule, PERSON_MODULES, type Module } from '~~/shared/modules'
import type { Asker } from '~~/shared/permissions'
import { ask } from '../db/door'
import { uuidArray } from '../db/instants'
import { importSeen, phone, record, recordImport } from '../db/schema'
import { seesRecord } from '../reading/visible'
import { mattersCalled, peopleCalled, type Called } from './linked'
import { ownerCalled, ownersByName } from './owners'

export interface KnownRecord { id: string, name: string }
type Row = { by: keyof Asked, key: string, id: string, name: string }

const mine = (asker: Asker) => seesRecord(asker, 'r')
const texts = (values: string[]) => sql`array(select jsonb_array_elements_text(${JSON.stringify([...new Set(values)])}::jsonb))`
const kin = (module: Module) => sql.join((isPersonModule(module) ? PERSON_MODULES : [module]).map(one => sql`${one}`), sql`, `)

/** What the rows of a file say of themselves, by which they may be here already. */
export interface Asked { numbers: string[], mails: string[], names: string[], companies: string[] }

export type Known = Record<keyof Asked, Map<string, KnownRecord>>

/**
 * Whom these numbers, mail addresses and names belong to, of those that may be seen, in one statement: people
 * of any module, or companies. A name alone means somebody of the same module only. Of several, the oldest.
 */
export async function knownBy(asker: Asker, module: Module, { numbers, mails, names, companies }: Asked): Promise<Known> {
  const { rows } = await ask<Row>(sql`
    ${firstOf('numbers', sql`x.e164`, sql`${phone} x join ${record} r on r.id = x.record_id`, sql`x.e164 = any(${texts(numbers)})
      and r.module in (${kin(module)})`, asker)}
    union all ${firstOf('mails', sql`lower(r.mail)`, sql`${record} r`, sql`r.mail is not null
      and lower(r.mail) = any(${texts(mails.map(mailKey))}) and r.module in (${kin(module)})`, asker)}
    union all ${firstOf('names', sql`lower(r.name)`, sql`${record} r`, sql`lower(r.name) = any(${texts(names.map(nameKey))})
      and r.module = ${module}`, asker)}
    union all ${firstOf('companies', sql`lower(r.name)`, sql`${record} r`, sql`lower(r.name) = any(${texts(companies.map(nameKey))})
      and r.module = 'company'`, asker)}`)
  const found = (by: keyof Asked) => new Map(rows.filter(row => row.by === by).map(({ key, id, name }) => [key, { id, name }]))
  return { numbers: found('numbers'), mails: found('mails'), names: found('names'), companies: found('companies') }
}

const firstOf = (by: keyof Asked, key: SQL, from: SQL, where: SQL, asker: Asker) => sql`
  (select distinct on (${key}) ${sql.raw(`'${by}'`)} as by, ${key} as key, r.id, r.name from ${from} where ${where} and ${mine(asker)}
    order by ${key}, r.made_at)`

/**
 * How often something was made of rows that say this, by other files that were not taken back, and how often they stood in
 * this one so far.
 */
export interface Seen { made: number, seen: number }

export const hashOf = (key: string): string =>
  createHash('sha256')
    .update(key)
    .digest('hex')
    .slice(0, 32)
    .replace(/(.{8})(.{4})(.{4})(.{4})/, '$1-$2-$3-$4-')

export async function seenBefore(module: Module, hashes: string[], importId: string | null): Promise<Map<string, Seen>> {
  if (hashes.length === 0) return new Map()
  // row by row, whatever the plan was made for: one of an empty table, kept, would read all of the module's rows for every piece
  const own = importId ? sql`s.import_id = ${importId}::uuid` : sql`false`
  const { rows } = await ask<Record<string, unknown> & Seen & { hash: string }>(sql`
    select s.hash, coalesce(sum(s.made) filter (where not ${own} and i.state not in ('taking-back', 'taken-back')), 0)::int as made,
      coalesce(sum(s.seen) filter (where ${own}), 0)::int as seen
    from unnest(${uuidArray([...new Set(hashes)])}) h (hash)
    cross join lateral (select * from ${importSeen} seen where seen.module = ${module} and seen.hash = h.hash offset 0) s
    join ${recordImport} i on i.id = s.import_id group by s.hash`)
  return new Map(rows.map(({ hash, made, seen }) => [hash, { made, seen }]))
}

/** What rows call those whom they speak of, and the country of numbers that name none. */
interface LinksAsked { country: string, owners?: string[], people?: string[], matters?: string[] }

const whyNot = (called: Called) => Object.fromEntries([...called].flatMap(([key, found]) => 'not' in found ? [[key, found.not]] : []))

/** What is found of rows before they are brought in. */
export async function lookUp(
  asker: Asker,
  { module, keys, country, owners = [], people = [], matters = [], ...asked }: Asked & LinksAsked & { module: Module, keys: string[] },
): Promise<LookUp> {
  const hashes = keys.map(hashOf)
  const seen = await seenBefore(module, hashes, null)
  const { numbers, mails, names, companies } = await knownBy(asker, module, asked)
  const colleagues = owners.length > 0 ? await ownersByName() : new Map()
  return {
    numbers: Object.fromEntries(numbers),
    mails: Object.fromEntries(mails),
    names: Object.fromEntries(names),
    made: hashes.map(hash => seen.get(hash)?.made ?? 0),
    companies: [...companies.keys()],
    notOwners: Object.fromEntries(owners.flatMap((named) => {
      const called = ownerCalled(named, colleagues, asker)
      return typeof called === 'string' ? [[named, called]] : []
    })),
    notPeople: whyNot(await peopleCalled(asker, country, people)),
    notMatters: whyNot(await mattersCalled(asker, matters)),
  }
}
