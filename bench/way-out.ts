import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type pg from 'pg'
import { v7 as uuid } from 'uuid'
import { openEmbedded } from '../server/db/embedded/open'
import { HAND_OVER } from '../server/jobs/kinds'
import { handOver } from '../server/texting/hand-over'
import { sendText } from '../server/texting/send'
import { TAKE_BACK_MS } from '../shared/texting'
import { exitCode, figure, size } from './support'
import { startWholeWay, textOf, THREAD } from './whole-way'

/**
 * Texts a second through the whole way out: use case, outbox, practice carrier, delivery events. Against
 * the bare rate of single-row transactions, and against its own SQL run again without anything around it.
 */
const TEXTS = Number(process.env.BENCH_TEXTS ?? size(500, 20))
const WARM_UP = size(300, 5)

interface Statement { text: string, values: unknown[] | undefined }

/** Writes down every statement that goes through a pool, in the order in which they were answered. */
function record(pool: pg.Pool): Statement[] {
  const statements: Statement[] = []
  const wrapped = new WeakSet<pg.PoolClient>()
  pool.on('acquire', (client) => {
    if (wrapped.has(client)) return
    wrapped.add(client)
    const query = client.query.bind(client) as (...args: unknown[]) => unknown
    client.query = ((first: string | { text: string, values?: unknown[] }, ...rest: unknown[]) => {
      const values = Array.isArray(rest[0]) ? rest[0] : typeof first === 'string' ? undefined : first.values
      const answered = () => statements.push({ text: typeof first === 'string' ? first : first.text, values })
      const callback = rest.at(-1)
      if (typeof callback === 'function')
        return query(first, ...rest.slice(0, -1), (...results: unknown[]) => (answered(), callback(...results)))
      return (query(first, ...rest) as Promise<unknown>).finally(answered)
    }) as typeof client.query
  })
  return statements
}

async function main(): Promise<void> {
  const way = await startWholeWay(4820)
  const { database, folder, ada, lineId } = way
  try {
    await database.pool.query('vacuum analyze')
    const { rows: phones } = await database.pool.query<{ id: string, e164: string }>(
      'select p.id, p.e164 from phone p join record r on r.id = p.record_id left join number_state n on n.e164 = p.e164 where p.country = \'US\' and p.kind = \'mobile\' and r.module <> \'candidate\' and coalesce(n.texts, \'unknown\') <> \'refused\'',
    )
    const start = join(folder, 'start.tar.gz')
    writeFileSync(start, await database.dump())
    const statements = record(database.pool)
    const stopOutbox = way.work({ [HAND_OVER]: handOver })

    /** Sends so many texts and waits until all are delivered; gives the milliseconds. */
    const send = (count: number) => way.timeUntilDelivered(count, async () => {
      const queue = Array.from({ length: count }, (_, i) => i)
      await Promise.all(Array.from({ length: 8 }, async () => {
        for (let i = queue.shift(); i !== undefined; i = queue.shift())
          await sendText(ada, textOf(uuid(), lineId, phones[i % phones.length]!.id, `Bench ${i}`), new Date(Date.now() - TAKE_BACK_MS))
      }))
    })
    // the database is WebAssembly, which is compiled better while it runs
    await send(WARM_UP)
    const warm = statements.length
    const wayOut = TEXTS / await send(TEXTS) * 1_000
    await stopOutbox()
    const count = statements.length
    await way.close()

    const replay = await openEmbedded(THREAD, { folder: join(folder, 'replay'), startFrom: start })
    const client = await replay.pool.connect()
    for (const { text, values } of statements.slice(0, warm)) await client.query({ text, values: values as unknown[] })
    const replayBegun = performance.now()
    for (const { text, values } of statements.slice(warm, count)) await client.query({ text, values: values as unknown[] })
    const bareSql = TEXTS / (performance.now() - replayBegun) * 1_000
    const rowsBegun = performance.now()
    for (let i = 0; i < 1_000; i++) await client.query('insert into audit (id, at, action) values (gen_random_uuid(), now(), \'bench\')')
    const singleRow = 1_000 / (performance.now() - rowsBegun) * 1_000
    client.release()
    await replay.close()

    console.log(
      `# way out: ${wayOut.toFixed(0)} texts/s; its ${((count - warm) / TEXTS).toFixed(1)} statements a text run bare ${bareSql.toFixed(0)} texts/s; single-row transactions ${singleRow.toFixed(0)}/s`,
    )
    figure('way-out/single-row-transactions', wayOut / singleRow, '>=0.05', wayOut / singleRow >= 0.05)
    figure('way-out/own-sql-bare', wayOut / bareSql, '>=0.5', wayOut / bareSql >= 0.5)
  }
  finally {
    way.remove()
  }
}

await main()
process.exit(exitCode())
