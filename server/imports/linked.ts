import { sql, type SQL } from 'drizzle-orm'
import { mailKey, nameKey } from '~~/core/import/fate'
import { readNumberCell } from '~~/core/import/read-row'
import { MATTER_MODULES, PERSON_MODULES, type Module } from '~~/shared/modules'
import type { Asker } from '~~/shared/permissions'
import { ask } from '../db/door'
import { textArray } from '../db/instants'
import { phone, record } from '../db/schema'
import { seesRecord } from '../reading/visible'

/** By what a file calls them: whom or what it means, or why nothing can be meant. */
export type Called = Map<string, { id: string } | { not: string }>

type Row = { key: string, id: string }

const among = (modules: readonly Module[]) => sql`r.module in (${sql.join(modules.map(module => sql`${module}`), sql`, `)})`

/** The people that a file names by mail address, number or whole name, of those whom the asker may see. */
export async function peopleCalled(asker: Asker, country: string, called: string[]): Promise<Called> {
  const keys = new Map(called.map(one => [one, keyOf(one, country)]))
  const wanted = textArray([...new Set(keys.values())])
  const found = await idsBy(sql`
    select x.e164 as key, r.id from ${phone} x join ${record} r on r.id = x.record_id
      where x.e164 = any(${wanted}) and ${among(PERSON_MODULES)} and ${seesRecord(asker, 'r')}
    union select lower(r.mail), r.id from ${record} r
      where r.mail is not null and lower(r.mail) = any(${wanted}) and ${among(PERSON_MODULES)} and ${seesRecord(asker, 'r')}
    union select lower(r.name), r.id from ${record} r
      where lower(r.name) = any(${wanted}) and ${among(PERSON_MODULES)} and ${seesRecord(asker, 'r')}`, called)
  return new Map(called.map(one => [one, only(found.get(keys.get(one)!), {
    none: `There is nobody “${one}” here. Bring people in first.`,
    several: `Several people are “${one}”. Give a mail address or a number that only one of them has.`,
  })]))
}

/** The deals, jobs and cases that a file names, of those which the asker may see. */
export async function mattersCalled(asker: Asker, called: string[]): Promise<Called> {
  const found = await idsBy(sql`select lower(r.name) as key, r.id from ${record} r
    where lower(r.name) = any(${textArray([...new Set(called.map(nameKey))])}) and ${among(MATTER_MODULES)} and ${seesRecord(asker, 'r')}`, called)
  return new Map(called.map(one => [one, only(found.get(nameKey(one)), {
    none: `There is no deal, job or case “${one}” here.`,
    several: `Several deals, jobs or cases are called “${one}”.`,
  })]))
}

function keyOf(called: string, country: string): string {
  if (called.includes('@')) return mailKey(called)
  const number = /\d/.test(called) ? readNumberCell(called, country) : null
  return number?.ok ? number.e164 : nameKey(called)
}

async function idsBy(statement: SQL, called: string[]): Promise<Map<string, string[]>> {
  const { rows } = called.length > 0 ? await ask<Row>(statement) : { rows: [] }
  const found = new Map<string, string[]>()
  for (const { key, id } of rows) found.set(key, [...found.get(key) ?? [], id])
  return found
}

const only = (ids: string[] | undefined, { none, several }: { none: string, several: string }) =>
  !ids?.length ? { not: none } : ids.length > 1 ? { not: several } : { id: ids[0]! }
