import { sql } from 'drizzle-orm'
import type { Brought } from '~~/core/plan/answers'
import { ask } from '../db/door'
import { at } from '../db/instants'
import { bulkPerson, bulkText, message } from '../db/schema'
import type { StoredBulk } from './one'

/** So many of those before it tell what it will bring. */
const SIMILAR = sql.raw('10')
const DAY = 86_400_000
/** What is fresher has not brought all of its answers; what is older says little about today. */
const [FRESH_MS, OLD_MS] = [DAY, 180 * DAY]
const TENTHS = sql.raw('array[0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1]')

/** What similar texts of the house have brought: those to the same kind of people, with the same template before any other. */
export async function readBrought({ id, modules, templateId }: Pick<StoredBulk, 'id' | 'modules' | 'templateId'>, now: Date): Promise<Brought> {
  const { rows: [found] } = await ask<{ texted: number, answered: number, delays: number[] | null }>(sql`
    with alike as (
      select b.id from ${bulkText} b
      where b.id <> ${id}::uuid and b.answers_id is null and b.modules ->> 0 = ${modules[0] ?? ''}
        and b.started_at between ${at(now.getTime() - OLD_MS)} and ${at(now.getTime() - FRESH_MS)}
      order by coalesce(b.template_id = ${templateId}::uuid, false) desc, b.started_at desc limit ${SIMILAR}
    )
    select (select count(*)::int from ${bulkPerson} p where p.bulk_id in (select id from alike) and p.standing = 'texted') as texted,
      count(*)::int as answered,
      percentile_cont(${TENTHS}) within group (order by extract(epoch from p.answered_at - m.handed_at) * 1000)
        filter (where p.answer_noted_by is null) as delays
    from ${bulkPerson} p join ${message} m on m.id = p.id and m.handed_at is not null
    where p.bulk_id in (select id from alike) and p.standing = 'texted' and p.answered_at is not null`)
  return { texted: found!.texted, answered: found!.answered, delays: found!.delays ?? [] }
}
