import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { log } from '../log/log'
import { joinOthers, type Topic } from './between'

const CHANNEL = 'plauder'
const AGAIN_AFTER_MS = 1_000

/** PostgreSQL takes 8,000 bytes; who must say more says it in parts. */
const MOST_BYTES = 7_900

interface Said { from: string, topic: Topic, message: unknown }

/**
 * Joins this process to the others on the same PostgreSQL server: what is said here is notified there, and the other way
 * round. What is said in one turn of the loop goes together, in one transaction.
 *
 * @param onGap called when the connection was lost and is back: whatever was said meanwhile was not heard
 * @returns how to leave
 */
export async function openChannel(url: string, onGap: () => void): Promise<() => Promise<void>> {
  const self = randomUUID()
  const waiting: string[] = []
  const heard = joinOthers((topic, message) => {
    const words = JSON.stringify({ from: self, topic, message } satisfies Said)
    if (Buffer.byteLength(words) > MOST_BYTES) throw new Error(`What is said of a ${topic} is too long for the channel.`)
    if (waiting.push(words) === 1) setImmediate(() => void pass())
  })
  let client: pg.Client | null = null
  let passing = false
  let left = false

  /** One after the other. What cannot be passed on now is not said later: it would be old. */
  async function pass(): Promise<void> {
    if (passing) return
    passing = true
    while (waiting.length > 0) {
      const words = waiting.splice(0)
      await client
        ?.query('select pg_notify($1, words) from unnest($2::text[]) words', [CHANNEL, words])
        .catch(error => log.warn({ err: error }, 'other processes could not be told'))
    }
    passing = false
  }

  async function connect(): Promise<void> {
    const next = new pg.Client({ connectionString: url, application_name: 'plauder channel', keepAlive: true })
    next.on('error', error => log.warn({ err: error }, 'the connection to other processes broke'))
    next.on('end', () => {
      client = null
      if (!left) setTimeout(comeBack, AGAIN_AFTER_MS).unref()
    })
    next.on('notification', ({ payload }) => {
      const { from, topic, message } = JSON.parse(payload!) as Said
      if (from !== self) heard(topic, message)
    })
    await next.connect()
    await next.query(`listen ${CHANNEL}`)
    client = next
  }

  async function comeBack(): Promise<void> {
    if (left) return
    try {
      await connect()
      onGap()
    }
    catch {
      // a connection that was never there ends too, and so it is tried again
    }
  }

  await connect()
  return async () => {
    left = true
    joinOthers(() => {})
    await client?.end()
  }
}
