import { sql, type SQL } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import type { RecordRow } from '~~/shared/record'
import { ask } from '../db/door'
import { milliseconds, uuidArray } from '../db/instants'
import { colleague, numberState, phone, pipeline, record, recordPerson } from '../db/schema'
import { seesRecord } from '../reading/visible'
import { joinCompany } from '../reading/company'
import { joinContact } from '../reading/contact'
import { joinStage } from '../reading/stages'

/** The names of the people on a record `r`, of those whom the asker may see. */
export const peopleNamed = (asker: Asker): SQL => sql`(
  select string_agg(x.name, ', ' order by x.name) from ${recordPerson} l join ${record} x on x.id = l.person_id
  where l.record_id = r.id and ${seesRecord(asker, 'x')})`

/**
 * What a row of a list shows, of some records in their order.
 *
 * @param chosen rows of `id` and `place`, called `chosen`. They stand first: with as many joins as here the database keeps
 * to the order in which they are written
 */
export const rowsFor = (asker: Asker, chosen: SQL): SQL => sql`
  select r.id, r.module, r.name, r.first_name as "firstName", r.last_name as "lastName", r.title, s.name as stage, r.street, r.city,
    r.region, r.postcode, r.country, r.mail, r.tags, r.fields,
    ${milliseconds(sql`contact.at`)} as last_contact_at, ${milliseconds(sql`r.made_at`)} as made_at,
    o.id as owner_id, o.name as owner_name, company.id as company_id, company.name as company_name,
    company.fields ->> 'sector' as company_sector,
    pl.id as pipeline_id, pl.name as pipeline_name, coalesce(s.over, false) as over, ${peopleNamed(asker)} as people, about.name as about,
    p.shown as phone, p.callable as "phoneToCall", coalesce(p.opted_out, false) as opted_out
  from ${chosen}
  join ${record} r on r.id = chosen.id
  join ${colleague} o on o.id = r.owner_id
  ${joinCompany(asker)}
  ${joinContact}
  ${joinStage}
  left join ${pipeline} pl on pl.id = r.pipeline_id
  left join ${record} about on about.id = r.about_id
    and ${seesRecord(asker, 'about')}
  left join lateral (
    select coalesce(x.e164, x.typed) as shown, n.texts = 'refused' as opted_out, case when x.e164 is not null and n.calls is distinct
      from 'refused' then x.id end as callable
    from ${phone} x left join ${numberState} n on n.e164 = x.e164
    where x.record_id = r.id order by x.position limit 1
  ) p on true
  order by chosen.place`

export type Row = Record<string, unknown>
  & Pick<
    RecordRow,
    | 'id'
    | 'module'
    | 'name'
    | 'firstName'
    | 'lastName'
    | 'title'
    | 'stage'
    | 'street'
    | 'city'
    | 'region'
    | 'postcode'
    | 'country'
    | 'mail'
    | 'tags'
    | 'fields'
    | 'phone'
    | 'phoneToCall'
    | 'people'
    | 'about'
    | 'over'
  > & {
    last_contact_at: number | null
    made_at: number
    owner_id: string
    owner_name: string
    company_id: string | null
    company_name: string
    company_sector: string | null
    pipeline_id: string | null
    pipeline_name: string
    opted_out: boolean
  }

export function rowOf({
  last_contact_at,
  made_at,
  owner_id,
  owner_name,
  company_id,
  company_name,
  company_sector,
  pipeline_id,
  pipeline_name,
  opted_out,
  ...row
}: Row): RecordRow {
  return {
    ...row,
    owner: { id: owner_id, name: owner_name },
    company: company_id ? { id: company_id, name: company_name, sector: company_sector } : null,
    pipeline: pipeline_id ? { id: pipeline_id, name: pipeline_name } : null,
    optedOut: opted_out,
    lastContactAt: last_contact_at,
    madeAt: made_at,
  }
}

/** What is shown of these records, in their order. */
export async function rowsWith(asker: Asker, ids: string[]): Promise<RecordRow[]> {
  if (ids.length === 0) return []
  const { rows } = await ask<Row>(rowsFor(asker, sql`unnest(${uuidArray(ids)}) with ordinality chosen (id, place)`))
  return rows.map(rowOf)
}
