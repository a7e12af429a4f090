import { readdirSync, readFileSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import { openEmbedded, type EmbeddedDatabase } from '~~/server/db/embedded/open'
import { builtFolder } from '~~/server/db/start'

const FOLDER = 'server/db/migrations'
const STAGES = '0016_stages.sql'
const migrations = readdirSync(FOLDER).filter(name => name.endsWith('.sql')).sort()
const [ada, team, lead, deal, job, line, talk, said, text] = Array.from({ length: 9 }, () => uuid())

const empty = () => openEmbedded(`${builtFolder()}/database-thread.mjs`, {})

async function migrate(database: EmbeddedDatabase, name: string): Promise<void> {
  for (const statement of readFileSync(`${FOLDER}/${name}`, 'utf8').split('--> statement-breakpoint')) await database.pool.query(statement)
}

/** A firm as it was kept before stages had ids, and when whatever was sent was a text. */
async function before(database: EmbeddedDatabase): Promise<void> {
  await database.pool.query(`
    insert into firm (name, country, texting_on) values ('Pannier & Post', 'US', true);
    insert into team (id, name) values ('${team}', 'Sales');
    insert into colleague (id, name, first_name, email, password_hash, role, title, zone) values ('${ada}', 'Ada Lund', 'Ada', 'ada@pannier.example', 'x', 'rep', 'Sales', 'Etc/UTC');
    insert into record (id, module, name, owner_id, team_id, stage, over, pipeline_id, made_at, last_contact_at) values
      ('${lead}', 'lead', 'Iris Holm', '${ada}', '${team}', 'Trial', false, null, now(), '2026-11-20T10:00:00Z'),
      ('${deal}', 'deal', 'Two bikes', '${ada}', '${team}', 'Won', true, '0192f000-0000-7000-8000-000000000001', now(), null),
      ('${job}', 'job', 'Rider', '${ada}', '${team}', 'Filled', true, '0192f000-0000-7000-8000-000000000002', now(), null);
    insert into record_person (record_id, person_id, stage, made_at) values ('${job}', '${lead}', 'Hired', now());
    insert into line (id, e164, name, country, team_id, carrier) values ('${line}', '+15035550118', 'Sales', 'US', '${team}', 'practice');
    insert into conversation (id, line_id, other, last_at) values ('${talk}', '${line}', '+15035550101', now());
    insert into activity (id, at, kind, colleague_id, message_id) values ('${said}', now(), 'text-out', '${ada}', '${text}');
    insert into message (id, conversation_id, activity_id, direction, state, encoding, units, parts, confirms_opt_out, made_at, leaves_at) values
      ('${text}', '${talk}', '${said}', 'out', 'delivered', 'UCS-2', 80, 2, true, now(), now());
    insert into view (id, module, name, owner_id, columns, conditions, sort, direction, made_at) values
      (gen_random_uuid(), 'lead', 'On trial', '${ada}', '{name}', '{"match":"all","of":[{"field":"stage","test":"one-of","value":["Trial","Offer"]},{"match":"any","of":[{"field":"stage","test":"none-of","value":["New"]}]}]}', 'name', 'up', now());
    insert into disposition (id, module, name, family, letter, colour, position, effects) values
      (gen_random_uuid(), 'lead', 'Wants a trial', 'reached', 't', 'pine', 0, '[{"kind":"add-tag","tag":"keen"},{"kind":"stage","stage":"Trial"}]');`)
}

describe('an older firm', () => {
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
    expect(
      await rows(
        'select r.name, p.name as pipeline, s.name as stage, s.over from record r join stage s on s.id = r.stage_id join pipeline p on p.id = s.pipeline_id order by r.name',
      ),
    ).toEqual([
      { name: 'Iris Holm', pipeline: 'Leads', stage: 'Trial', over: false },
      { name: 'Rider', pipeline: 'Jobs', stage: 'Filled', over: true },
      { name: 'Two bikes', pipeline: 'Sales', stage: 'Won', over: true },
    ])
    expect(await rows('select s.name from record_person l join stage s on s.id = l.stage_id')).toEqual([{ name: 'Hired' }])
  })

  it('has its messages, each a text and as long as it was', async () => {
    expect(
      await rows(
        'select m.kind, v.kind as within, x.encoding, x.units, x.parts, x.confirms_opt_out from message m join conversation v on v.id = m.conversation_id join text_message x on x.message_id = m.id',
      ),
    ).toEqual([{ kind: 'text', within: 'text', encoding: 'UCS-2', units: 80, parts: 2, confirms_opt_out: true }])
  })

  it('knows who was spoken with last, and when', async () => {
    expect(await rows('select record_id, module, at from contact')).toEqual([
      { record_id: lead, module: 'lead', at: new Date('2026-11-20T10:00:00Z') },
    ])
  })

  it('has lists and dispositions that ask for the same stages', async () => {
    const ids = Object.fromEntries(
      (await rows('select s.name, s.id from stage s join pipeline p on p.id = s.pipeline_id where p.holds = \'lead\'')).map(
        ({ name, id }) => [name, id],
      ),
    )
    expect((await rows('select conditions from view'))[0]!.conditions).toEqual({ match: 'all', of: [
      { field: 'stage', test: 'one-of', value: expect.arrayContaining([ids.Trial, ids.Offer]) },
      { match: 'any', of: [{ field: 'stage', test: 'none-of', value: [ids.New] }] },
    ] })
    expect(await rows('select colour, effects from disposition')).toEqual([
      {
        colour: 'good',
        effects: [
          { kind: 'add-tag', tag: 'keen' },
          { kind: 'stage', stageId: ids.Trial },
        ],
      },
    ])
  })

  it('has the fields that were in the program as its own', async () => {
    expect((await rows('select module, key from custom_field order by 1, 2')).map(({ module, key }) => `${module}.${key}`)).toEqual([
      'agreement.notice_by',
      'case.urgency',
      'handover.bikes',
      'job.currency',
      'job.hours_a_week',
      'job.openings',
      'job.pay',
      'job.starts',
    ])
  })
})

it('a database without a firm has no pipelines: who begins chooses them', async () => {
  const database = await empty()
  for (const name of migrations) await migrate(database, name)
  expect((await database.pool.query('select 1 from pipeline')).rows).toEqual([])
  await database.close()
})
