import { FIRST_NAMES, LAST_NAMES } from '../demo/names'
import { idAt } from '../demo/rows'
import type { EmbeddedDatabase } from '../server/db/embedded/open'
import type { OpenDatabase } from '../server/db/start'
import { load } from './load'

const OF_A_COMPANY = 5

/** People with a number each, some in each company, loaded by COPY; gives them back. */
export async function fillPeople(database: OpenDatabase | EmbeddedDatabase, count: number): Promise<{ id: string, e164: string }[]> {
  const {
    rows: [own],
  } = await database.pool.query(
    'select c.id as owner, m.team_id as team from colleague c join team_member m on m.colleague_id = c.id where c.mail = $1',
    ['ada@pannier.example'],
  )
  const companies = Array.from({ length: Math.ceil(count / OF_A_COMPANY) }, (_, n) => ({ id: idAt(new Date()), n }))
  const { rows: stages } = await database.pool.query<{ id: string }>(
    'select s.id from stage s join pipeline p on p.id = s.pipeline_id where p.holds = \'lead\' order by s.position',
  )
  const now = Date.now()
  await load(
    database,
    'record (id, module, name, owner_id, team_id, made_at)',
    companies.map(
      ({ id, n }) =>
        `${id},company,${LAST_NAMES[(n * 3) % LAST_NAMES.length]} Works ${n},${own.owner},${own.team},${new Date(now).toISOString()}`,
    ),
  )
  const chunk = 10_000
  const all: { id: string, e164: string }[] = []
  for (let start = 0; start < count; start += chunk) {
    const people = Array.from({ length: Math.min(chunk, count - start) }, (_, i) => {
      const n = start + i
      const [first, last] = [FIRST_NAMES[n % FIRST_NAMES.length]!, LAST_NAMES[(n * 7) % LAST_NAMES.length]!]
      return {
        id: idAt(new Date(now - n * 1_000)),
        n,
        first,
        last,
        madeAt: new Date(now - n * 60_000).toISOString(),
        contact: n % 5 === 0 ? '' : new Date(now - (n % 400) * 86_400_000).toISOString(),
      }
    })
    all.push(...people.map(({ id, n }) => ({ id, e164: numberOf(n) })))
    await load(
      database,
      'record (id, module, name, first_name, last_name, title, owner_id, team_id, company_id, stage_id, city, mail, tags, fields, made_at)',
      people.map(
        ({ id, n, first, last, madeAt }) =>
          `${id},lead,${first} ${last} ${n},${first},${last} ${n},owner,${own.owner},${own.team},${companies[n % companies.length]!.id},${stages[n % stages.length]!.id},${['Portland', 'Halifax', 'Bristol', 'Hilo', ''][n % 5]},bench${n}@post.example,{bakery},"{""budget"": ${n % 900}}",${madeAt}`,
      ),
    )
    await load(
      database,
      'contact (record_id, module, at)',
      people.filter(({ contact }) => contact !== '').map(({ id, contact }) => `${id},lead,${contact}`),
    )
    await load(database, 'phone (id, record_id, position, label, typed, e164, country, kind)', people.map(({ id, n, madeAt }) =>
      `${idAt(new Date(madeAt))},${id},0,mobile,${numberOf(n)},${numberOf(n)},US,mobile`))
  }
  await database.pool.query('vacuum analyze')
  await database.pool.query('checkpoint')
  return all
}

const numberOf = (n: number) => `+1999${String(n).padStart(7, '0')}`
