import { setTimeout as pause } from 'node:timers/promises'
import pg from 'pg'
import { hear, say } from '~~/server/live/between'
import { openChannel } from '~~/server/live/channel'
import { useDatabase } from '../../support/database'

useDatabase()

/** Only a server passes anything on between processes. */
const onServer = process.env.TEST_SERVER ? describe : describe.skip

async function until(done: () => boolean): Promise<void> {
  for (let i = 0; i < 200 && !done(); i++) await pause(20)
}

onServer('what processes tell each other', () => {
  const url = `${process.env.TEST_SERVER}/postgres`
  let other: pg.Client
  let told: { from: string, topic: string, message: unknown }[]
  let leave: () => Promise<void>
  let gaps: number

  beforeEach(async () => {
    told = []
    gaps = 0
    other = new pg.Client({ connectionString: url })
    await other.connect()
    other.on('notification', ({ payload }) => told.push(JSON.parse(payload!) as typeof told[number]))
    await other.query('listen plauder')
    leave = await openChannel(url, () => gaps++)
  })
  afterEach(async () => {
    await leave()
    await other.end()
  })

  it('is heard here at once, and there', async () => {
    const heard: unknown[] = []
    const stop = hear('notice', message => heard.push(message))
    say('notice', { about: 'a record' })
    expect(heard).toEqual([{ about: 'a record' }])
    await until(() => told.length > 0)
    expect(told).toMatchObject([{ topic: 'notice', message: { about: 'a record' } }])
    // what I said myself does not come back to me
    await pause(50)
    expect(heard).toHaveLength(1)
    stop()
  })

  it('is heard here when it is said there', async () => {
    const heard: unknown[] = []
    const stop = hear('presence', message => heard.push(message))
    await other.query('select pg_notify($1, $2)', ['plauder', JSON.stringify({ from: 'there', topic: 'presence', message: { at: 1 } })])
    await until(() => heard.length > 0)
    expect(heard).toEqual([{ at: 1 }])
    stop()
  })

  it('refuses what is too long, and goes on after the connection was lost, which it says', async () => {
    expect(() => say('notice', 'x'.repeat(8_000))).toThrow('too long')
    await other.query('select pg_terminate_backend(pid) from pg_stat_activity where application_name = $1', ['plauder channel'])
    await until(() => gaps > 0)
    expect(gaps).toBe(1)
    say('notice', 'after')
    await until(() => told.length > 0)
    expect(told).toMatchObject([{ message: 'after' }])
  })

  it('is not passed on any more by one who has left', async () => {
    await leave()
    say('notice', 'alone')
    await pause(100)
    expect(told).toEqual([])
    leave = async () => {}
  })
})
