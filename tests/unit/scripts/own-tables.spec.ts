import { RuleTester } from 'eslint'
import { homesOf, ownTables } from '../../../scripts/lint/own-tables.mjs'

const SCHEMA = 'server/db/schema'
const options = (room: string) => [{ room, schema: SCHEMA }]
const foreign = (table: string, home: string) => [{ messageId: 'foreign', data: { room: 'calling', table, home } }]

describe('who writes which table', () => {
  it('is said by the schema file in which it stands', () => {
    const homes = homesOf(SCHEMA)
    expect(['record', 'view', 'callRound', 'message', 'job'].map(table => homes.get(table))).toEqual([
      'records',
      'records',
      'calling',
      'texting',
      'jobs',
    ])
  })

  new RuleTester().run('own-tables', ownTables as never, {
    valid: [
      { code: 'database.update(call).set({})', options: options('calling') },
      { code: 'sql`update ${callRound} set name = 1`', options: options('calling') },
      { code: 'sql`select 1 from ${record} r join ${phone} p on true`', options: options('calling') },
      { code: 'database.insert(record)', options: options('imports') },
      { code: 'found.delete(record)', options: options('records') },
    ],
    invalid: [
      { code: 'database.update(record).set({})', options: options('calling'), errors: foreign('record', 'records') },
      { code: 'insertAll(activity, rows)', options: options('calling'), errors: foreign('activity', 'activity') },
      { code: 'sql`with a as (insert into ${job} (id) select 1) select 1`', options: options('calling'), errors: foreign('job', 'jobs') },
      { code: 'sql`select 1; delete from ${message}`', options: options('calling'), errors: foreign('message', 'texting') },
    ],
  })
})
