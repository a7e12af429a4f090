import { sql } from 'drizzle-orm'
import type { Module } from '~~/shared/modules'
import type { Asker } from '~~/shared/permissions'
import type { NamedRecord } from '~~/shared/record'
import { ask } from '../db/door'
import { planned } from '../db/prepared'
import { record } from '../db/schema'
import { seesRecord } from '../reading/visible'
import { joinCompany } from '../reading/company'
import { containing } from './found-by'
import { joinStage } from '../reading/stages'

const FOUND = sql.raw('20')

/** Records of some modules to choose from, by a part of their name; those that begin so first. */
export async function recordsNamed(asker: Asker, modules: readonly Module[], words: string): Promise<NamedRecord[]> {
  const wanted = words.trim()
  const { rows } = await ask<NamedRecord & Record<string, unknown>>(planned(sql`
    select r.id, r.name, r.module, coalesce(r.title, company.name, r.city) as about
    from ${record} r ${joinCompany(asker)} ${joinStage}
    where r.module in (${sql.join(modules.map(module => sql`${module}`), sql`, `)})
      and ${wanted === '' ? sql`true` : sql`r.name ilike ${containing(wanted)}`}
      and ${seesRecord(asker, 'r')}
    order by coalesce(s.over, false), r.name not ilike ${containing(wanted).slice(1)}, r.name collate "und-x-icu", r.id limit ${FOUND}`))
  return rows
}
