import { createHash } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { mailKey, nameKey } from '~~/core/import/fate'
import type { LookUp } from '~~/shared/import'
import { isPersonModule, PERSON_MODULES, type Module } from '~~/shared/modules'
import type { Asker } from '~~/shared/permissions'
import { once } from '../db/door'
import { uuidArray } from '../db/instants'
import { importSeen, phone, record, recordImport } from '../db/schema'
import { visible } from '../identity/visible'

export interface KnownRecord { id: string, name: string }
type Rows = { key: string, id: string, name: string }

const mine = (asker: Asker) => visible(asker, 'record.see', { owner: sql`r.owner_id`, team: sql`r.team_id` })
const texts = (values: string[]) => sql`array(select jsonb_array_elements_text(${JSON.stringify([...new Set(values)])}::jsonb))`
const kin = (module: Module) => sql.join((isPersonModule(module) ? PERSON_MODULES : [module]).map(one => sql`${one}`), sql`, `)

const byKey = (rows: Rows[]) => new Map(rows.map(({ key, id, name }) => [key, { id, name }]))

/** Who has these numbers, of those that may be seen: people of any module, or companies. */
export async function knownByNumber(asker: Asker, module: Module, numbers: string[]): Promise<Map<string, KnownRecord>> {
  if (numbers.length === 0) return new Map()
  const { rows } = await once<Rows>(sql`
    select distinct on (x.e164) x.e164 as key, r.id, r.name from ${phone} x join ${record} r on r.id = x.record_id
    where x.e164 = any(${texts(numbers)}) and r.module in (${kin(module)}) and ${mine(asker)} order by x.e164, r.made_at`)
  return byKey(rows)
}

export async function knownByMail(asker: Asker, module: Module, mails: string[]): Promise<Map<string, KnownRecord>> {
  if (mails.length === 0) return new Map()
  const { rows } = await once<Rows>(sql`
    select distinct on (lower(r.mail)) lower(r.mail) as key, r.id, r.name from ${record} r
    where r.mail is not null and lower(r.mail) = any(${texts(mails.map(mailKey))}) and r.module in (${kin(module)}) and ${mine(asker)} order by lower(r.mail), r.made_at`)
  return byKey(rows)
}

/** A name alone means somebody of the same module only. */
export async function knownByName(asker: Asker, module: Module, names: string[]): Promise<Map<string, KnownRecord>> {
  if (names.length === 0) return new Map()
  const { rows } = await once<Rows>(sql`
    select distinct on (lower(r.name)) lower(r.name) as key, r.id, r.name from ${record} r
    where lower(r.name) = any(${texts(names.map(nameKey))}) and r.module = ${module} and ${mine(asker)} order by lower(r.name), r.made_at`)
  return byKey(rows)
}

/** How often something was made of rows that say this, by other files that were not taken back, and how often they stood in this one so far. */
export interface Seen { made: number, seen: number }

export const hashOf = (key: string): string => createHash('sha256').update(key).digest('hex').slice(0, 32).replace(/(.{8})(.{4})(.{4})(.{4})/, '$1-$2-$3-$4-')

export async function seenBefore(module: Module, hashes: string[], importId: string | null): Promise<Map<string, Seen>> {
  if (hashes.length === 0) return new Map()
  const own = importId ? sql`s.import_id = ${importId}::uuid` : sql`false`
  const { rows } = await once<Record<string, unknown> & Seen & { hash: string }>(sql`
    select s.hash, coalesce(sum(s.made) filter (where not ${own} and i.state not in ('taking-back', 'taken-back')), 0)::int as made, coalesce(sum(s.seen) filter (where ${own}), 0)::int as seen
    from ${importSeen} s join ${recordImport} i on i.id = s.import_id
    where s.module = ${module} and s.hash = any(${uuidArray(hashes)}) group by s.hash`)
  return new Map(rows.map(({ hash, made, seen }) => [hash, { made, seen }]))
}

/** What is found of rows before they are brought in. */
export async function lookUp(asker: Asker, { module, numbers, mails, names, companies, keys }: { module: Module, numbers: string[], mails: string[], names: string[], companies: string[], keys: string[] }): Promise<LookUp> {
  const hashes = keys.map(hashOf)
  const seen = await seenBefore(module, hashes, null)
  return {
    numbers: Object.fromEntries(await knownByNumber(asker, module, numbers)),
    mails: Object.fromEntries(await knownByMail(asker, module, mails)),
    names: Object.fromEntries(await knownByName(asker, module, names)),
    made: hashes.map(hash => seen.get(hash)?.made ?? 0),
    companies: [...(await knownByName(asker, 'company', companies)).keys()],
  }
}
