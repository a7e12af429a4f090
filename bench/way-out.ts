import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createApp, createRouter, defineEventHandler, getHeaders, toNodeListener } from 'h3'
import type pg from 'pg'
import { v7 as uuid } from 'uuid'
import { COLLEAGUES, DEMO_PASSWORD } from '../demo/colleagues'
import { fillDemo } from '../demo/lay'
import { fetchPrices } from '../server/tellers/keep-up'
import { practiceCarrier } from '../server/carriers/practice'
import { registerCarrier } from '../server/carriers/registry'
import { openDoor } from '../server/db/door'
import { openEmbedded } from '../server/db/embedded/open'
import { readBytes } from '../server/http/body'
import { whoSignedIn, openSignIn } from '../server/identity/sign-in'
import { HAND_OVER } from '../server/jobs/kinds'
import { startOutbox } from '../server/jobs/outbox'
import { takeEvent } from '../server/texting/events'
import { handOver } from '../server/texting/hand-over'
import { sendText } from '../server/texting/send'
import { TAKE_BACK_MS } from '../shared/texting'
import { secretsFor, startPractice } from '../scripts/world.mjs'
import { exitCode, figure, PARTS, size } from './support'

/**
 * Texts a second through the whole way out: use case, outbox, practice carrier, delivery events. Against
 * the bare rate of single-row transactions, and against its own SQL run again without anything around it.
 */
const TEXTS = Number(process.env.BENCH_TEXTS ?? size(500, 20))
const WARM_UP = size(300, 5)
const [reportPort, practicePort] = [4820, 4821]
const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
const thread = join(PARTS, 'database-thread.mjs')

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
  const practice = startPractice({
    folder,
    port: reportPort,
    practicePort,
    env: { PRACTICE_PER_SECOND: '100000', PRACTICE_PACE: '{"sent":0,"delivered":0}' },
  })
  await practice.open
  const secrets = secretsFor(folder)
  try {
    const database = await openEmbedded(thread, { folder: join(folder, 'database'), startFrom: join(PARTS, 'empty-database.tar.gz') })
    openDoor(database.pool)
    await fillDemo(new Date())
    await database.pool.query('vacuum analyze')
    const carrier = practiceCarrier({
      url: `http://127.0.0.1:${practicePort}`,
      key: secrets.PLAUDER_CARRIER_KEY,
      webhookSecret: secrets.PLAUDER_WEBHOOK_SECRET,
    })
    registerCarrier(carrier)
    await fetchPrices(carrier)
    const ada = (await whoSignedIn(
      (await openSignIn(COLLEAGUES[0]!.mail, DEMO_PASSWORD, { address: 'bench' }, new Date())).signIn,
      new Date(),
    ))!
    const { rows: phones } = await database.pool.query<{ id: string, e164: string }>(
      'select p.id, p.e164 from phone p join record r on r.id = p.record_id left join number_state n on n.e164 = p.e164 where p.country = \'US\' and p.kind = \'mobile\' and r.module <> \'candidate\' and coalesce(n.texts, \'unknown\') <> \'refused\'',
    )
    const { rows: [line] } = await database.pool.query<{ id: string }>('select id from line where e164 = \'+15035550118\'')
    const start = join(folder, 'start.tar.gz')
    const { writeFileSync } = await import('node:fs')
    writeFileSync(start, await database.dump())

    const statements = record(database.pool)
    let delivered = 0
    let wanted = 0
    let done = () => {}
    const router = createRouter().post('/api/carriers/practice/events', defineEventHandler(async (event) => {
      const body = await readBytes(event, 65_536)
      if (!carrier.webhook!.isSigned(body, getHeaders(event))) throw new Error('A report was not signed.')
      const report = carrier.readEvent(JSON.parse(body.toString('utf8')))
      await takeEvent('practice', report, new Date())
      if (report.kind === 'delivered' && ++delivered === wanted) done()
      return { taken: true }
    }))
    const server = createServer(toNodeListener(createApp().use(router))).listen(reportPort, '127.0.0.1')
    const stopOutbox = startOutbox({ handlers: { [HAND_OVER]: handOver } })

    /** Sends so many texts and waits until all are delivered; gives the milliseconds. */
    const send = async (count: number) => {
      const allDelivered = new Promise<void>(resolve => done = resolve)
      wanted += count
      const begun = performance.now()
      const queue = Array.from({ length: count }, (_, i) => i)
      await Promise.all(Array.from({ length: 8 }, async () => {
        for (let i = queue.shift(); i !== undefined; i = queue.shift()) {
          // as if written five seconds ago, so that the time to take it back does not count
          await sendText(
            ada,
            {
              id: uuid(),
              lineId: line!.id,
              phoneId: phones[i % phones.length]!.id,
              conversationId: null,
              recordId: null,
              text: `Bench ${i}`,
              templateId: null,
              templateVersion: null,
              nightAllowed: true,
              anyway: ['twice'], seenUntil: null,
              later: null,
              ref: null,
              pictureIds: [],
            },
            new Date(Date.now() - TAKE_BACK_MS),
          )
        }
      }))
      await allDelivered
      return performance.now() - begun
    }
    // the database is WebAssembly, which is compiled better while it runs
    await send(WARM_UP)
    const warm = statements.length
    const wayOut = TEXTS / await send(TEXTS) * 1_000
    await stopOutbox()
    server.close()
    const count = statements.length
    await database.close()

    const replay = await openEmbedded(thread, { folder: join(folder, 'replay'), startFrom: start })
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
    practice.child.kill('SIGKILL')
    rmSync(folder, { recursive: true, force: true })
  }
}

await main()
process.exit(exitCode())
