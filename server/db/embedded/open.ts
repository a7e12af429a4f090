import path from 'node:path'
import { Duplex } from 'node:stream'
import { Worker } from 'node:worker_threads'
import pg from 'pg'
import { PlainError } from '../../log/failure'
import { log } from '../../log/log'
import { prepareStatements } from '../prepared'
import { TERMINATE, type Reply, type Request, type WorkerOptions } from './protocol'

export interface EmbeddedDatabase {
  pool: pg.Pool
  /** Loads rows by COPY, which the wire cannot carry, between transactions. Never inside of one. */
  copyFrom: (sql: string, data: string) => Promise<void>
  /** The whole database as a tar, for starting others from. */
  dump: () => Promise<Uint8Array>
  /** Copies the files, as they are between two transactions, into a folder that is not there yet. */
  copyTo: (folder: string) => Promise<void>
  /** Work that may take longer than a statement of somebody who waits. */
  patiently: <T>(work: () => Promise<T>) => Promise<T>
  close: () => Promise<void>
}

export interface Limits {
  /** A statement that takes longer is ended, and with it the thread: there is no other way to. */
  longestMs: number
  /** The thread broke and does not come back. */
  onDead: (error: Error) => void
}

type Ask = Request extends infer R ? R extends { ask: string } ? Omit<R, 'id'> : never : never

/** One whose answer is taken in, one that the database works on, and one that is ready for it. */
const CONNECTIONS = 3

const NO_LIMITS: Limits = { longestMs: Infinity, onDead: () => {} }
const WATCH_EVERY_MS = 500

/** For whoever waited when the thread was ended, in PostgreSQL's own words for it. */
const cancelled = () => Object.assign(new Error('The statement took too long and was ended.'), { code: '57014' })

/**
 * Starts the database's thread and gives a pool of connections to it, so that everything above is the
 * same as with a PostgreSQL server. They share the one session in turns. A thread that breaks, or that works
 * on one statement for too long, is ended and begun anew: what was committed is there again.
 *
 * @param workerFile the bundled thread (scripts/bundle.mjs)
 * @throws PlainError where the files cannot be opened
 */
export async function openEmbedded(workerFile: string, options: WorkerOptions, limits = NO_LIMITS): Promise<EmbeddedDatabase> {
  const waiting = new Map<number, { resolve: (result?: Uint8Array) => void, reject: (error: Error) => void }>()
  const streams = new Map<number, WorkerStream>()
  let underWay = 0
  let opened = 0
  let asked = 0
  let patience = 0
  let heardAt = performance.now()
  let beginningAnew: Promise<void> | null = null
  let closing = false
  let worker: Worker
  /** What came while the thread was begun anew: the one that is ended would never answer it. */
  let held: [request: Request, transfer: ArrayBuffer[]][] = []

  const fail = (error: Error) => {
    for (const stream of streams.values()) stream.destroy(error)
    for (const { reject } of waiting.values()) reject(error)
    waiting.clear()
    underWay = 0
  }
  const post = (request: Request, transfer: ArrayBuffer[] = []) => {
    if (beginningAnew) return void held.push([request, transfer])
    if (underWay === 0) heardAt = performance.now()
    // of a connection that closes nothing is heard
    if (!('wire' in request && request.wire[0] === TERMINATE)) underWay++
    worker.postMessage(request, transfer)
  }
  const ask = (request: Ask) => new Promise<Uint8Array | undefined>((resolve, reject) => {
    const id = ++asked
    waiting.set(id, { resolve, reject })
    post({ ...request, id })
  })
  const hear = (reply: Reply) => {
    heardAt = performance.now()
    underWay = Math.max(0, underWay - 1)
    if ('wire' in reply) streams.get(reply.channel)?.push(reply.wire)
    else if ('fatal' in reply) void beginAnew(new Error(reply.fatal))
    else if ('id' in reply) {
      const caller = waiting.get(reply.id)
      waiting.delete(reply.id)
      if ('error' in reply) caller?.reject(new Error(reply.error))
      else caller?.resolve(reply.result)
    }
  }

  async function begin(): Promise<void> {
    const next = new Worker(path.resolve(workerFile), { workerData: options })
    worker = next
    await new Promise<void>((resolve, reject) => {
      next.once('message', (reply: Reply) => 'fatal' in reply ? reject(cannotOpen(options.folder, reply.fatal)) : resolve())
      next.once('error', error => reject(cannotOpen(options.folder, error.message)))
    })
    heardAt = performance.now()
    next.on('message', hear)
    next.on('error', error => void beginAnew(error))
    next.on('exit', code => code === 0 || worker !== next || void beginAnew(new Error(`The database's thread ended with ${code}.`)))
  }

  /** Whoever waits is told so; what was committed lies in the folder. In memory there is nothing to begin anew with. */
  function beginAnew(error: Error): Promise<void> {
    if (closing) return Promise.resolve()
    return beginningAnew ??= (async () => {
      log.error({ err: error }, 'the thread of the embedded database is begun anew')
      const old = worker
      fail(error)
      old.removeAllListeners()
      await old.terminate()
      if (!options.folder) throw error
      await begin()
    })().catch(limits.onDead).finally(() => {
      beginningAnew = null
      const late = held
      held = []
      for (const one of late) post(...one)
    })
  }

  await begin()
  const watching = setInterval(() => {
    if (!beginningAnew && patience === 0 && underWay > 0 && performance.now() - heardAt > limits.longestMs) void beginAnew(cancelled())
  }, WATCH_EVERY_MS).unref()

  const openStream = () => {
    const channel = ++opened
    const stream = new WorkerStream(wire => post({ channel, wire }, [wire.buffer]))
    streams.set(channel, stream)
    return stream.once('close', () => streams.delete(channel))
  }

  const pool = new pg.Pool({
    user: 'postgres',
    database: 'postgres',
    max: CONNECTIONS,
    idleTimeoutMillis: 0,
    stream: openStream,
    onConnect: async (client) => {
      client.on('error', () => {})
      await prepareStatements(client)
    },
  })
  // a connection that breaks while nobody uses it is replaced by the next that is asked for
  pool.on('error', () => {})

  const patiently = async <T>(work: () => Promise<T>): Promise<T> => {
    patience++
    try {
      return await work()
    }
    finally {
      heardAt = performance.now()
      patience--
    }
  }

  return {
    pool,
    patiently,
    copyFrom: async (sql, data) => {
      await patiently(() => ask({ ask: 'copy-from', sql, data }))
    },
    copyTo: async (folder) => {
      await patiently(() => ask({ ask: 'copy-to', folder }))
    },
    dump: async () => (await patiently(() => ask({ ask: 'dump' })))!,
    close: async () => {
      closing = true
      clearInterval(watching)
      await pool.end()
      await ask({ ask: 'close' })
      await worker.terminate()
    },
  }
}

/** What the database says of damaged files speaks to those who build it. */
const cannotOpen = (folder: string | undefined, words: string) =>
  new PlainError(
    `The database in ${folder ?? 'memory'} cannot be opened (${words
      .split('\n')[0]!
      .replace(/ Build with -s.*$/, '')
      .slice(
        0,
        200,
      )}). If the disk is full, make room and start again; otherwise its files are damaged: put the last backup in their place.`,
  )

/** What node-postgres takes for a socket. */
class WorkerStream extends Duplex {
  /** @param send the bytes are given away */
  constructor(private readonly send: (wire: Uint8Array<ArrayBuffer>) => void) {
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

  override _final(done: () => void) {
    done()
    this.push(null)
  }
}
