import path from 'node:path'
import { Duplex } from 'node:stream'
import { Worker } from 'node:worker_threads'
import pg from 'pg'
import { prepareStatements } from '../prepared'
import type { Reply, Request, WorkerOptions } from './protocol'

export interface EmbeddedDatabase {
  pool: pg.Pool
  /** Loads rows by COPY, which the wire cannot carry, between transactions. Never inside of one. */
  copyFrom: (sql: string, data: string) => Promise<void>
  /** The whole database as a tar, for starting others from. */
  dump: () => Promise<Uint8Array>
  close: () => Promise<void>
}

type Ask = Request extends infer R ? R extends { ask: string } ? Omit<R, 'id'> : never : never

/** One whose answer is taken in, one that the database works on, and one that is ready for it. */
const CONNECTIONS = 3

/**
 * Starts the database's thread and gives a pool of connections to it, so that everything above is the
 * same as with a PostgreSQL server. They share the one session in turns.
 *
 * @param workerFile the bundled thread (scripts/bundle.mjs)
 */
export async function openEmbedded(workerFile: string, options: WorkerOptions): Promise<EmbeddedDatabase> {
  const worker = new Worker(path.resolve(workerFile), { workerData: options })
  const waiting = new Map<number, { resolve: (result?: Uint8Array) => void, reject: (error: Error) => void }>()
  const streams = new Map<number, WorkerStream>()
  let opened = 0
  let asked = 0

  const fail = (error: Error) => {
    for (const stream of streams.values()) stream.destroy(error)
    for (const { reject } of waiting.values()) reject(error)
    waiting.clear()
  }
  const ask = (request: Ask) => new Promise<Uint8Array | undefined>((resolve, reject) => {
    const id = ++asked
    waiting.set(id, { resolve, reject })
    worker.postMessage({ ...request, id })
  })

  await new Promise<void>((resolve, reject) => {
    worker.once('message', resolve)
    worker.once('error', reject)
  })
  worker.on('error', fail)
  worker.on('exit', code => code === 0 || fail(new Error(`The database's thread ended with ${code}.`)))
  worker.on('message', (reply: Reply) => {
    if ('wire' in reply) streams.get(reply.channel)?.push(reply.wire)
    else if ('fatal' in reply) fail(new Error(reply.fatal))
    else if ('id' in reply) {
      const caller = waiting.get(reply.id)
      waiting.delete(reply.id)
      if ('error' in reply) caller?.reject(new Error(reply.error))
      else caller?.resolve(reply.result)
    }
  })

  const openStream = () => {
    const channel = ++opened
    const stream = new WorkerStream(worker, channel)
    streams.set(channel, stream)
    return stream.once('close', () => streams.delete(channel))
  }

  const pool = new pg.Pool({
    user: 'postgres',
    database: 'postgres',
    max: CONNECTIONS,
    idleTimeoutMillis: 0,
    stream: openStream,
    onConnect: prepareStatements,
  })

  return {
    pool,
    copyFrom: async (sql, data) => {
      await ask({ ask: 'copy-from', sql, data })
    },
    dump: async () => (await ask({ ask: 'dump' }))!,
    close: async () => {
      await pool.end()
      await ask({ ask: 'close' })
      await worker.terminate()
    },
  }
}

/** What node-postgres takes for a socket. */
class WorkerStream extends Duplex {
  constructor(private readonly worker: Worker, private readonly channel: number) {
    super()
  }

  connect() {
    process.nextTick(() => this.emit('connect'))
    return this
  }

  setNoDelay() {
    return this
  }

  setKeepAlive() {
    return this
  }

  ref() {
    return this
  }

  unref() {
    return this
  }

  override _read() {}

  override _write(chunk: Buffer, _encoding: string, done: () => void) {
    this.send(new Uint8Array(chunk))
    done()
  }

  override _writev(chunks: { chunk: Buffer }[], done: () => void) {
    this.send(new Uint8Array(Buffer.concat(chunks.map(({ chunk }) => chunk))))
    done()
  }

  /** The bytes are a copy of their own, so they can be given away. */
  private send(wire: Uint8Array<ArrayBuffer>) {
    this.worker.postMessage({ channel: this.channel, wire }, [wire.buffer])
  }

  override _final(done: () => void) {
    done()
    this.push(null)
  }
}
