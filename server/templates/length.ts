import { sql } from 'drizzle-orm'
import { formatOfCountry } from '~~/core/hours/format'
import { checkTemplate } from '~~/core/template/check'
import { exampleAnswers } from '~~/core/template/fill-ins'
import { makeFiller } from '~~/core/template/fill'
import { count, emptyTally } from '~~/core/template/length'
import { CONTEXT_MODULES } from '~~/shared/fields'
import { isPersonModule, type Module } from '~~/shared/modules'
import type { LengthForm } from '~~/shared/schemas/template'
import type { CountedLength } from '~~/shared/template'
import { ask } from '../db/door'
import { planned } from '../db/prepared'
import { phone, record, recordPerson } from '../db/schema'
import { Budget } from '../http/budget'
import { badInput } from '../http/problem'
import { firmHome } from '../identity/firm'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord } from '../reading/visible'
import { joinCompany } from '../reading/company'
import { isOver, nameOfStage } from '../reading/stages'
import { catalogueOf } from './catalogue'
import { senderValues } from './values'

/** People that are counted at once: little enough that others hardly wait for the database. */
const CHUNK = 1_000
/** So long one request counts; whoever asks goes on where it ended. */
const COUNTING_MS = 1_000

type Row = {
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
 * Fills a template for the next people of its modules, those that the asker may see, and tells how long it became.
 * Whoever asks goes on where it ended, and may stop at any time.
 *
 * @throws Problem 422 if the template cannot be filled at all
 */
export async function countLength(asker: SignedIn, { body, modules, fillIns, after }: LengthForm): Promise<CountedLength> {
  const [wrong] = checkTemplate(body, await catalogueOf(modules, fillIns))
  if (wrong) throw badInput({ body: `Line ${wrong.line}, character ${wrong.column}: ${wrong.message}` })
  const fill = makeFiller(body)
  const home = await firmHome()
  const always = {
    sender: senderValues(asker),
    firm: { name: home.name },
    fill_in: exampleAnswers(fillIns),
    message: { ref: '4K7P-2M9X' },
  }
  const used = CONTEXT_MODULES.filter(module => body.includes(`${module}.`))
  const { rows, total } = await peopleOf(asker, modules, used, after)
  const tally = emptyTally()
  const budget = new Budget(COUNTING_MS)
  let last: string | null = null
  for (const row of rows) {
    const { id, name, about } = row
    if (budget.isSpent) return { tally, total, next: last }
    count(
      tally,
      { id, name },
      fill(
        {
          ...always,
          ...about,
          ...ownValues(row),
        },
        { zone: asker.zone, format: formatOfCountry(row.country ?? home.country) },
      ),
    )
    last = id
    await budget.makeRoom()
  }
  return { tally, total, next: rows.length === CHUNK ? last : null }
}

function ownValues({ module, name, first_name, last_name, title, city, stage, mail, fields, company, company_city }: Row) {
  const own = { ...fields, name, city, stage }
  const theirs = { name: company, city: company_city }
  if (isPersonModule(module)) return { person: { ...own, first_name, last_name, title, mail }, company: theirs }
  return module === 'company' ? { company: own } : { [module]: own, company: theirs }
}

/** @param used what the template says of what people are on: of each kind the first that is not over */
async function peopleOf(
  asker: SignedIn,
  modules: string[],
  used: readonly string[],
  after: string | null,
): Promise<{ rows: Row[], total: number | null }> {
  const mine = seesRecord(asker, 'r')
  const theirs = seesRecord(asker, 'x')
  const wanted = sql`r.module in (${sql.join(
    modules.map(module => sql`${module}`),
    sql`, `,
  )}) and ${mine}`
  const about
    = used.length === 0
      ? sql`null::jsonb`
      : sql`(select jsonb_object_agg(one.module, one.fields || jsonb_build_object('name', one.name, 'city', one.city, 'stage',
      ${nameOfStage(sql`one.stage_id`)})) from (
        select distinct on (x.module) x.* from ${recordPerson} l join ${record} x on x.id = l.record_id
        where l.person_id = r.id and not ${isOver(sql`x.stage_id`)} and x.module in (${sql.join(
          used.map(module => sql`${module}`),
          sql`, `,
        )}) and ${theirs}
        order by x.module, x.fields ->> 'day' nulls last, x.fields ->> 'time' nulls last, x.made_at desc) one)`
  const { rows } = await ask<Row>(
    planned(sql`
    select r.id, r.module, r.name, r.first_name, r.last_name, r.title, r.city, ${nameOfStage(sql`r.stage_id`)} as stage, r.mail, r.fields,
      coalesce(r.country, (select p.country from ${phone} p where p.record_id = r.id order by p.position limit 1)) as country,
      company.name as company, company.city as company_city, ${about} as about
    from (select * from ${record} r where ${wanted} and ${after ? sql`r.id > ${after}::uuid` : sql`true`} order by r.id
      limit ${sql.raw(String(CHUNK))}) r
    ${joinCompany(asker)}
    order by r.id`),
  )
  // how many there are is asked once, at the start
  const {
    rows: [all],
  } = after
    ? { rows: [null] }
    : await ask<{ total: number }>(
        planned(sql`select count(*)::int as total
    from ${record} r where ${wanted}`),
      )
  return { rows, total: all?.total ?? null }
}
