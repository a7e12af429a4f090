import { existsSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { parentPort, workerData } from 'node:worker_threads'
import { PGlite, type PGliteOptions } from '@electric-sql/pglite'
import { pg_trgm } from '@electric-sql/pglite/contrib/pg_trgm'
import { DURABLE_START, DurableNodeFS } from './durable-fs'
import type { Reply, Request, WorkerOptions } from './protocol'

/**
 * The thread that owns the embedded database and feeds it PostgreSQL's wire protocol. A long query
 * stops this thread alone. What it is asked runs strictly one after the other.
 */
const TERMINATE = 'X'.charCodeAt(0)
const port = parentPort!
const reply = (message: Reply) => port.postMessage(message)

async function open({ folder, startFrom }: WorkerOptions): Promise<PGlite> {
  const options: PGliteOptions = { extensions: { pg_trgm } }
  if (startFrom && !(folder && existsSync(`${folder}/PG_VERSION`))) options.loadDataDir = new Blob([await readFile(startFrom)])
  return folder
    ? PGlite.create({ ...options, fs: new DurableNodeFS(folder), startParams: DURABLE_START })
    : PGlite.create(options)
}

async function answer(database: PGlite, request: Request): Promise<void> {
  if ('wire' in request) return exchange(database, request.wire)
  if (request.ask === 'copy-from') {
    await database.query(request.sql, [], { blob: new Blob([request.data]) })
    return reply({ id: request.id })
  }
  if (request.ask === 'dump') {
    const dump = await database.dumpDataDir('gzip')
    return reply({ id: request.id, result: new Uint8Array(await dump.arrayBuffer()) })
  }
  await database.exec('CHECKPOINT')
  await database.close()
  reply({ id: request.id })
}

async function exchange(database: PGlite, wire: Uint8Array): Promise<void> {
  if (wire[0] === TERMINATE) {
    // the one session outlives each connection to it, so it is tidied as a pooler would
    if (database.isInTransaction()) await database.exec('ROLLBACK')
    await database.exec('DISCARD ALL')
    return
  }
  const chunks: Uint8Array[] = []
  // the chunks lie in the database's own memory, which it uses again
  await database.execProtocolRawStream(wire, { onRawData: chunk => chunks.push(chunk.slice()) })
  reply({ wire: chunks.length === 1 ? chunks[0]! : Buffer.concat(chunks) })
}

const database = await open(workerData as WorkerOptions)
let queue = Promise.resolve()
port.on('message', (request: Request) => {
  queue = queue.then(() => answer(database, request)).catch((error: unknown) => {
    const words = error instanceof Error ? error.message : String(error)
    reply('id' in request ? { id: request.id, error: words } : { fatal: words })
  })
})
reply({ ready: true })
