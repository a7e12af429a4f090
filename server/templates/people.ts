import { sql, type SQL } from 'drizzle-orm'
import type { FieldValues } from '~~/core/template/fields'
import { CONTEXT_MODULES } from '~~/shared/fields'
import { isPersonModule, type Module } from '~~/shared/modules'
import { phone, record, recordPerson } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { joinCompany } from '../reading/company'
import { isOver, nameOfStage } from '../reading/stages'
import { seesRecord } from '../reading/visible'

/** What a template may say of somebody, read for many at once. */
export type PersonRow = Record<string, unknown> & {
  id: string
  module: Module
  name: string
  first_name: string | null
  last_name: string | null
  title: string | null
  city: string | null
  country: string | null
  stage: string | null
  mail: string | null
  fields: Record<string, unknown>
  company: string | null
  company_city: string | null
  about: Record<string, Record<string, unknown>> | null
}

/**
 * The columns of people `r` for a PersonRow, with PERSON_JOINS.
 *
 * @param body the template: what people are on is read only where it says something of that, of each kind the first that is not over
 */
export function personColumns(asker: SignedIn, body: string): SQL {
  return sql`r.id, r.module, r.name, r.first_name, r.last_name, r.title, r.city, ${nameOfStage(sql`r.stage_id`)} as stage, r.mail, r.fields,
    coalesce(r.country, (select p.country from ${phone} p where p.record_id = r.id order by p.position limit 1)) as country,
    company.name as company, company.city as company_city, ${aboutOf(asker, body)} as about`
}

export const personJoins = (asker: SignedIn): SQL => joinCompany(asker)

function aboutOf(asker: SignedIn, body: string): SQL {
  const used = CONTEXT_MODULES.filter(module => body.includes(`${module}.`))
  if (used.length === 0) return sql`null::jsonb`
  return sql`(select jsonb_object_agg(one.module, one.fields || jsonb_build_object('name', one.name, 'city', one.city, 'stage',
    ${nameOfStage(sql`one.stage_id`)})) from (
      select distinct on (x.module) x.* from ${recordPerson} l join ${record} x on x.id = l.record_id
      where l.person_id = r.id and not ${isOver(sql`x.stage_id`)} and x.module in (${sql.join(
        used.map(module => sql`${module}`),
        sql`, `,
      )}) and ${seesRecord(asker, 'x')}
      order by x.module, x.fields ->> 'day' nulls last, x.fields ->> 'time' nulls last, x.made_at desc) one)`
}

/** What a template says of a person, of their company and of what they are on. */
export function personValues({
  module, name, first_name, last_name, title, city, stage, mail, fields, company, company_city, about,
}: PersonRow): FieldValues {
  const own = { ...fields, name, city, stage }
  const theirs = { name: company, city: company_city }
  const values = isPersonModule(module)
    ? { person: { ...own, first_name, last_name, title, mail }, company: theirs }
    : module === 'company' ? { company: own } : { [module]: own, company: theirs }
  return { ...about, ...values }
}
