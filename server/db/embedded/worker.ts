import { cpSync, existsSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { parentPort, workerData } from 'node:worker_threads'
import { PGlite, type PGliteOptions } from '@electric-sql/pglite'
import { pg_trgm } from '@electric-sql/pglite/contrib/pg_trgm'
import { DURABLE_START, DurableNodeFS } from './durable-fs'
import { TERMINATE, type Reply, type Request, type WorkerOptions } from './protocol'
import { Turns } from './turns'

/**
 * The thread that owns the embedded database and feeds it PostgreSQL's wire protocol. A long query
 * stops this thread alone. What it is asked runs strictly one after the other,
 * in turns.
 */
const port = parentPort!
const reply = (message: Reply) => port.postMessage(message)

async function open({ folder, startFrom }: WorkerOptions): Promise<PGlite> {
  const options: PGliteOptions = { extensions: { pg_trgm } }
  if (startFrom && !(folder && existsSync(`${folder}/PG_VERSION`))) options.loadDataDir = new Blob([await readFile(startFrom)])
  return folder
    ? PGlite.create({ ...options, fs: new DurableNodeFS(folder), startParams: DURABLE_START })
    : PGlite.create(options)
}

async function answer(request: Request): Promise<void> {
  if ('wire' in request) return exchange(request.channel, request.wire)
  if (request.ask === 'copy-from') {
    await database.query(request.sql, [], { blob: new Blob([request.data]) })
    return reply({ id: request.id })
  }
  if (request.ask === 'dump') {
    const dump = await database.dumpDataDir('gzip')
    return reply({ id: request.id, result: new Uint8Array(await dump.arrayBuffer()) })
  }
  if (request.ask === 'copy-to') {
    await database.exec('CHECKPOINT')
    cpSync((workerData as WorkerOptions).folder!, request.folder, { recursive: true })
    return reply({ id: request.id })
  }
  await database.exec('CHECKPOINT')
  await database.close()
  reply({ id: request.id })
}

async function exchange(channel: number, wire: Uint8Array): Promise<void> {
  if (wire[0] === TERMINATE) {
    // the one session outlives each connection to it
    if (turns.left(channel)) await database.exec('ROLLBACK')
    return
  }
  const chunks: Uint8Array[] = []
  // the chunks lie in the database's own memory, which it uses again
  await database.execProtocolRawStream(wire, { onRawData: chunk => chunks.push(chunk.slice()) })
  const answer = chunks.length === 1 ? chunks[0]! : Buffer.concat(chunks)
  turns.answered(channel, answer)
  reply({ channel, wire: answer })
}

async function answerAll(): Promise<void> {
  for (let asked = turns.next(); asked; asked = turns.next()) {
    const { request } = asked
    try {
      await answer(request)
    }
    catch (error) {
      const words = error instanceof Error ? error.message : String(error)
      reply('id' in request ? { id: request.id, error: words } : { fatal: words })
    }
  }
}

const database = await open(workerData as WorkerOptions).catch((error: unknown) => {
  // said in words: an error of its own kind would not come through whole
  reply({ fatal: error instanceof Error ? error.message : String(error) })
  throw error
})
const turns = new Turns<Request>()
let answering: Promise<void> | null = null
port.on('message', (request: Request) => {
  turns.ask('wire' in request ? request.channel : null, request)
  answering ??= answerAll().finally(() => answering = null)
})
reply({ ready: true })
