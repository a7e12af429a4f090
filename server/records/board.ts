import { sql, type SQL } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import type { Board, BoardCard, BoardStage, Money, Pipeline, Stage } from '~~/shared/pipelines'
import { tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, conversation, phone, record, recordPerson } from '../db/schema'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord } from '../reading/visible'
import { joinCompany } from '../reading/company'
import { joinContact } from '../reading/contact'
import { authorize } from './one'
import { pipelineById } from './pipelines'
import { peopleNamed } from './rows'

/** Cards of a stage that come at once; more come as they are asked for. */
const CARDS = 40

/** Which cards stand on a board: records `r` with a stage each. */
interface Standing { from: SQL, where: SQL, stage: SQL, since: SQL, about: SQL, amount: SQL, currency: SQL }

/** The deals of a pipeline that somebody may see, each in its stage. */
export async function boardOfDeals(
  asker: SignedIn,
  pipelineId: string,
  whose: 'all' | 'mine',
  most: Record<string, number> = {},
): Promise<Board> {
  const pipeline = await pipelineById(pipelineId)
  if (pipeline.holds !== 'deal') throw badInput({ pipelineId: 'No deals stand in this pipeline. Choose one that holds deals.' })
  return readBoard(
    asker,
    pipeline,
    {
      from: sql`${record} r ${joinCompany(asker)} ${joinContact}`,
      where: sql`r.pipeline_id = ${pipelineId}::uuid and r.module = 'deal'
      and ${whose === 'mine' ? sql`r.owner_id = ${asker.id}::uuid` : sql`true`}`,
      stage: sql`r.stage_id`,
      since: sql`r.stage_since`,
      about: sql`nullif(concat_ws(', ', ${peopleNamed(asker)}, company.name), '')`,
      amount: sql`case when r.fields ->> 'value' ~ '^[0-9]{1,12}([.][0-9]{1,2})?$' then (r.fields ->> 'value')::numeric end`,
      currency: sql`r.fields ->> 'currency'`,
    },
    true,
    most,
  )
}

/** The candidates of a job that somebody may see, each in a stage of the job's pipeline. */
export async function boardOfJob(asker: SignedIn, jobId: string, most: Record<string, number> = {}): Promise<Board> {
  const job = await authorize(asker, 'record.see', jobId)
  if (job.module !== 'job' || !job.pipelineId) throw badInput({ id: 'Only a job has a pipeline of candidates.' })
  return readBoard(asker, await pipelineById(job.pipelineId), {
    from: sql`${recordPerson} l join ${record} r on r.id = l.person_id ${joinContact}`,
    where: sql`l.record_id = ${jobId}::uuid`,
    stage: sql`l.stage_id`,
    since: sql`l.stage_since`,
    about: sql`r.title`,
    amount: sql`null::numeric`,
    currency: sql`null::text`,
  }, can(asker, 'record.edit', job), most)
}

async function readBoard(
  asker: SignedIn,
  pipeline: Pipeline,
  standing: Standing,
  mayMove: boolean,
  most: Record<string, number>,
): Promise<Board> {
  const where = sql`${standing.where} and ${seesRecord(asker, 'r')}`
  const { stage, amount, currency } = standing
  return tx(async (database) => {
    const { rows: sums } = await database.execute<{ stage: string, currency: string | null, count: number, amount: number | null }>(sql`
      select ${stage} as stage, ${currency} as currency, count(*)::int as count, sum(${amount})::float8 as amount from ${standing.from}
        where ${where} group by 1, 2`)
    const { rows: cards } = await database.execute<CardRow>(
      cardsQuery(
        standing,
        where,
        pipeline.stages.map(({ id }) => ({ id, most: most[id] ?? CARDS })),
      ),
    )
    return {
      pipeline,
      mayMove,
      stages: pipeline.stages.map(one =>
        shownStage(
          one,
          sums.filter(sum => sum.stage === one.id),
          cards.filter(card => card.stage === one.id),
        ),
      ),
    }
  })
}

/** The newest of each stage: who waits for an answer first, then who was contacted last. */
const cardsQuery = (
  { from, stage, since, about, amount, currency }: Standing,
  where: SQL,
  stages: { id: string, most: number }[],
): SQL => sql`
  with standing as (
    select r.id, r.name, ${about} as about, r.owner_id, ${stage} as stage, ${milliseconds(since)} as since,
      ${milliseconds(sql`contact.at`)} as last_contact_at,
      ${amount}::float8 as amount, ${currency} as currency,
      exists (
        select 1 from ${phone} x join ${conversation} v on v.remote = x.e164 and v.waits_since is not null
        where x.record_id = r.id or x.record_id in (select l2.person_id from ${recordPerson} l2 where l2.record_id = r.id)
      ) as waits
    from ${from} where ${where}
  ), placed as (
    select standing.*, row_number() over (partition by stage order by waits desc, last_contact_at desc nulls last, id) as place
      from standing
  )
  select placed.*, o.first_name as owner from placed join ${colleague} o on o.id = placed.owner_id
  where ${sql.join(
    stages.map(({ id, most }) => sql`(placed.stage = ${id}::uuid and placed.place <= ${most}::int)`),
    sql` or `,
  )}
  order by placed.stage, placed.place`

type CardRow = Record<string, unknown> & {
  stage: string
  id: string
  name: string
  about: string | null
  owner: string
  since: number | null
  last_contact_at: number | null
  amount: number | null
  currency: string | null
  waits: boolean
}

const shownStage = (
  stage: Stage,
  sums: { currency: string | null, count: number, amount: number | null }[],
  cards: CardRow[],
): BoardStage => ({
  ...stage,
  count: sums.reduce((all, { count }) => all + count, 0),
  worth: sums.flatMap(({ currency, amount }) => money(currency, amount) ?? []).sort((a, b) => a.currency.localeCompare(b.currency)),
  cards: cards.map(card => cardOf(card)),
})

const cardOf = ({ id, name, about, owner, since, last_contact_at, amount, currency, waits }: CardRow): BoardCard =>
  ({ id, name, about, owner, since, lastContactAt: last_contact_at, money: money(currency, amount), waits })

const money = (currency: string | null, amount: number | null): Money | null =>
  amount === null ? null : { currency: currency ?? '', amount }
