import { readdirSync, readFileSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import { openEmbedded, type EmbeddedDatabase } from '~~/server/db/embedded/open'
import { builtFolder } from '~~/server/db/start'

const FOLDER = 'server/db/migrations'
const STAGES = '0016_stages.sql'
const migrations = readdirSync(FOLDER).filter(name => name.endsWith('.sql')).sort()
const [ada, team, lead, deal, job] = Array.from({ length: 5 }, () => uuid())

const empty = () => openEmbedded(`${builtFolder()}/database-thread.mjs`, {})

async function migrate(database: EmbeddedDatabase, name: string): Promise<void> {
  for (const statement of readFileSync(`${FOLDER}/${name}`, 'utf8').split('--> statement-breakpoint')) await database.pool.query(statement)
}

/** A firm as it was kept before stages had ids. */
async function before(database: EmbeddedDatabase): Promise<void> {
  await database.pool.query(`
    insert into firm (name, country, texting_on) values ('Pannier & Post', 'US', true);
    insert into team (id, name) values ('${team}', 'Sales');
    insert into colleague (id, name, first_name, email, password_hash, role, title, zone) values ('${ada}', 'Ada Lund', 'Ada', 'ada@pannier.example', 'x', 'rep', 'Sales', 'Etc/UTC');
    insert into record (id, module, name, owner_id, team_id, stage, over, pipeline_id, made_at) values
      ('${lead}', 'lead', 'Iris Holm', '${ada}', '${team}', 'Trial', false, null, now()),
      ('${deal}', 'deal', 'Two bikes', '${ada}', '${team}', 'Won', true, '0192f000-0000-7000-8000-000000000001', now()),
      ('${job}', 'job', 'Rider', '${ada}', '${team}', 'Filled', true, '0192f000-0000-7000-8000-000000000002', now());
    insert into record_person (record_id, person_id, stage, made_at) values ('${job}', '${lead}', 'Hired', now());
    insert into view (id, module, name, owner_id, columns, conditions, sort, direction, made_at) values
      (gen_random_uuid(), 'lead', 'On trial', '${ada}', '{name}', '{"match":"all","of":[{"field":"stage","test":"one-of","value":["Trial","Offer"]},{"match":"any","of":[{"field":"stage","test":"none-of","value":["New"]}]}]}', 'name', 'up', now());
    insert into disposition (id, module, name, family, letter, colour, position, effects) values
      (gen_random_uuid(), 'lead', 'Wants a trial', 'reached', 't', 'pine', 0, '[{"kind":"add-tag","tag":"keen"},{"kind":"stage","stage":"Trial"}]');`)
}

describe('a firm from before stages had ids', () => {
  let database: EmbeddedDatabase
  const rows = async (query: string) => (await database.pool.query<Record<string, unknown>>(query)).rows
  beforeAll(async () => {
    database = await empty()
    for (const name of migrations.slice(0, migrations.indexOf(STAGES))) await migrate(database, name)
    await before(database)
    for (const name of migrations.slice(migrations.indexOf(STAGES))) await migrate(database, name)
  })
  afterAll(() => database.close())

  it('has everybody where they stood, and over what was over', async () => {
    expect(await rows('select r.name, p.name as pipeline, s.name as stage, s.over from record r join stage s on s.id = r.stage_id join pipeline p on p.id = s.pipeline_id order by r.name')).toEqual([
      { name: 'Iris Holm', pipeline: 'Leads', stage: 'Trial', over: false },
      { name: 'Rider', pipeline: 'Jobs', stage: 'Filled', over: true },
      { name: 'Two bikes', pipeline: 'Sales', stage: 'Won', over: true },
    ])
    expect(await rows('select s.name from record_person l join stage s on s.id = l.stage_id')).toEqual([{ name: 'Hired' }])
  })

  it('has lists and dispositions that ask for the same stages', async () => {
    const ids = Object.fromEntries((await rows('select s.name, s.id from stage s join pipeline p on p.id = s.pipeline_id where p.holds = \'lead\'')).map(({ name, id }) => [name, id]))
    expect((await rows('select conditions from view'))[0]!.conditions).toEqual({ match: 'all', of: [
      { field: 'stage', test: 'one-of', value: expect.arrayContaining([ids.Trial, ids.Offer]) },
      { match: 'any', of: [{ field: 'stage', test: 'none-of', value: [ids.New] }] },
    ] })
    expect(await rows('select colour, effects from disposition')).toEqual([{ colour: 'good', effects: [{ kind: 'add-tag', tag: 'keen' }, { kind: 'stage', stageId: ids.Trial }] }])
  })

  it('has the fields that were in the program as its own', async () => {
    expect((await rows('select module, key from custom_field order by 1, 2')).map(({ module, key }) => `${module}.${key}`)).toEqual(['agreement.notice_by', 'case.urgency', 'handover.bikes', 'job.currency', 'job.hours_a_week', 'job.openings', 'job.pay', 'job.starts'])
  })
})

it('a database without a firm has no pipelines: who begins chooses them', async () => {
  const database = await empty()
  for (const name of migrations) await migrate(database, name)
  expect((await database.pool.query('select 1 from pipeline')).rows).toEqual([])
  await database.close()
})
