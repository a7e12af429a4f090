import { sql } from 'drizzle-orm'
import { formatOfCountry } from '~~/core/hours/format'
import { checkTemplate } from '~~/core/template/check'
import { exampleAnswers } from '~~/core/template/fill-ins'
import { makeFiller } from '~~/core/template/fill'
import { count, emptyTally } from '~~/core/template/length'
import type { LengthForm } from '~~/shared/schemas/template'
import type { CountedLength } from '~~/shared/template'
import { ask } from '../db/door'
import { planned } from '../db/prepared'
import { record } from '../db/schema'
import { Budget } from '../http/budget'
import { badInput } from '../http/problem'
import { firmHome } from '../identity/firm'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord } from '../reading/visible'
import { catalogueOf } from './catalogue'
import { personColumns, personJoins, personValues, type PersonRow } from './people'
import { senderValues } from './values'

/** People that are counted at once: little enough that others hardly wait for the database. */
const CHUNK = 1_000
/** So long one request counts; whoever asks goes on where it ended. */
const COUNTING_MS = 1_000

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
  const { rows, total } = await peopleOf(asker, modules, body, after)
  const tally = emptyTally()
  const budget = new Budget(COUNTING_MS)
  let last: string | null = null
  for (const row of rows) {
    const { id, name } = row
    if (budget.isSpent) return { tally, total, next: last }
    count(
      tally,
      { id, name },
      fill(
        {
          ...always,
          ...personValues(row),
        },
        { zone: asker.zone, format: formatOfCountry(row.country ?? home.country) },
      ),
    )
    last = id
    await budget.makeRoom()
  }
  return { tally, total, next: rows.length === CHUNK ? last : null }
}

async function peopleOf(
  asker: SignedIn,
  modules: string[],
  body: string,
  after: string | null,
): Promise<{ rows: PersonRow[], total: number | null }> {
  const mine = seesRecord(asker, 'r')
  const wanted = sql`r.module in (${sql.join(
    modules.map(module => sql`${module}`),
    sql`, `,
  )}) and ${mine}`
  const { rows } = await ask<PersonRow>(
    planned(sql`
    select ${personColumns(asker, body)}
    from (select * from ${record} r where ${wanted} and ${after ? sql`r.id > ${after}::uuid` : sql`true`} order by r.id
      limit ${sql.raw(String(CHUNK))}) r
    ${personJoins(asker)}
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
