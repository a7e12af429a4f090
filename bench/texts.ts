import { idAt } from '../demo/rows'
import type { OpenDatabase } from '../server/db/start'
import { load } from './load'

const WORDS = ['racks', 'brakes', 'trikes', 'saddles', 'lights', 'baskets', 'bells', 'chains', 'locks']

/** Texts between a line and people, evenly over a year and more, loaded by COPY. */
export async function fillTexts(
  database: OpenDatabase,
  people: { id: string, e164: string }[],
  count: number,
  each: number,
): Promise<void> {
  const {
    rows: [own],
  } = await database.pool.query(
    'select c.id as owner, (select id from line where private = false order by name limit 1) as line from colleague c where c.mail = $1',
    ['ada@pannier.example'],
  )
  const now = Date.now()
  const talks = people.map(({ e164 }) => ({ id: idAt(new Date(now)), e164 }))
  for (let start = 0; start < talks.length; start += 20_000) {
    await load(
      database,
      'conversation (id, kind, line_id, remote, last_at)',
      talks.slice(start, start + 20_000).map(({ id, e164 }) => `${id},text,${own.line},${e164},${new Date(now).toISOString()}`),
    )
  }
  const chunk = 20_000
  for (let start = 0; start < count; start += chunk) {
    const rows = Array.from({ length: Math.min(chunk, count - start) }, (_, i) => {
      const n = start + i
      const at = new Date(now - (n % each) * 86_400_000 * 1.7 - n)
      return {
        at: at.toISOString(),
        activity: idAt(at),
        message: idAt(at),
        record: people[n % people.length]!.id,
        conversation: talks[n % people.length]!.id,
        ours: n % 3 > 0,
        word: WORDS[n % WORDS.length]!,
      }
    })
    await load(
      database,
      'activity (id, at, kind, colleague_id, message_id)',
      rows.map(row => `${row.activity},${row.at},${row.ours ? 'text-out' : 'text-in'},${row.ours ? own.owner : ''},${row.message}`),
    )
    await load(
      database,
      'activity_content (activity_id, words)',
      rows.map(row => `${row.activity},"Hi, the mechanic comes on Thursday before 11 to see to the ${row.word}."`),
    )
    await load(
      database,
      'activity_on_record (record_id, at, activity_id)',
      rows.map(row => `${row.record},${row.at},${row.activity}`),
    )
    await load(
      database,
      'message (id, kind, conversation_id, activity_id, direction, state, made_at, leaves_at)',
      rows.map(
        row =>
          `${row.message},text,${row.conversation},${row.activity},${row.ours ? 'out' : 'in'},${row.ours ? 'delivered' : 'received'},${row.at},${row.at}`,
      ),
    )
    await load(
      database,
      'text_message (message_id, encoding, units, parts)',
      rows.map(row => `${row.message},GSM-7,64,1`),
    )
  }
  await database.pool.query(
    `update conversation v set came_in = x.came_in, went_out = x.went_out from (select conversation_id,
      bool_or(direction = 'in') as came_in, bool_or(direction = 'out') as went_out from message group by 1) x where x.conversation_id = v.id`)
  await database.pool.query('vacuum analyze')
  await database.pool.query('checkpoint')
}
