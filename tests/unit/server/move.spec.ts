import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pg from 'pg'
import { moveToServer } from '~~/server/backup/main'
import { sumsOf, tablesOf } from '~~/server/backup/tables'
import { openDoor } from '~~/server/db/door'
import { openEmbedded } from '~~/server/db/embedded/open'
import { lockFolder } from '~~/server/db/folder-lock'
import { openServer } from '~~/server/db/server/open'
import { builtFolder } from '~~/server/db/start'
import { readTimeline } from '~~/server/timeline/read'
import { everything, type Things } from '../../support/everything'
import { fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { makeFirm, type Firm } from '../../support/firm'

/** It takes a server as well: `npm run unit:server` names one. */
const SERVER = process.env.TEST_SERVER
const parts = builtFolder()
const threadFile = join(parts, 'database-thread.mjs')

async function freshDatabase(): Promise<string> {
  const name = `moved-${randomUUID()}`
  const client = new pg.Client({ connectionString: `${SERVER}/postgres` })
  await client.connect()
  await client.query(`create database "${name}"`)
  await client.end()
  return `${SERVER}/${name}`
}

const describeOnServer = SERVER ? describe : describe.skip
describeOnServer('moving from the embedded database to a server', () => {
  let dataFolder: string
  let firm: Firm
  let hers: Things
  const open = () => openEmbedded(threadFile, { folder: join(dataFolder, 'database'), startFrom: join(parts, 'empty-database.tar.gz') })
  const move = (url: string, values: object = {}) => moveToServer({ dataFolder, url, threadFile, migrationsFolder: join(parts, 'migrations'), ...values })

  beforeAll(async () => {
    dataFolder = mkdtempSync(join(tmpdir(), 'plauder-move-'))
    const embedded = await open()
    openDoor(embedded.pool)
    firm = await makeFirm()
    fakeCarrier()
    fakeExchange();
    ({ hers } = await everything(firm))
    await embedded.pool.query(`insert into audit (id, at, action, details) values
      ($1, '2026-03-29 01:30:00.123+00', 'exported', '{"words": "Grüße, “quoted” \\\\ back, tab\\t, 👋, null: null"}')`, [randomUUID()])
    await embedded.close()
  }, 120_000)
  afterAll(() => rmSync(dataFolder, { recursive: true, force: true }))

  it('brings every row of every table, and Plauder goes on there as before', async () => {
    const url = await freshDatabase()
    const moved: string[] = []
    const rows = await move(url, { onTable: (name: string, count: number) => void (count > 0 && moved.push(name)) })
    expect(rows).toBeGreaterThan(50)
    expect(moved).toEqual(expect.arrayContaining(['record', 'message', 'audit', 'recording', 'paper_file', 'money_account']))
    const embedded = await open()
    const server = openServer(url)
    try {
      const tables = await tablesOf(embedded.pool as unknown as pg.Client)
      expect(await sumsOf(server.pool as unknown as pg.Client, tables)).toEqual(await sumsOf(embedded.pool as unknown as pg.Client, tables))
      // what the tables hold to is as it was
      const ties = `select conrelid::regclass::text || ' ' || conname as tie from pg_constraint where connamespace = 'public'::regnamespace and contype in ('f', 'c', 'u', 'p') order by 1`
      expect((await server.pool.query(ties)).rows).toEqual((await embedded.pool.query(ties)).rows)
      await expect(server.pool.query('update activity set at = at')).rejects.toThrow()
      openDoor(server.pool)
      expect((await readTimeline(firm.ada, hers.record)).entries.length).toBeGreaterThan(0)
    }
    finally {
      await embedded.close()
      await server.close()
    }
    await expect(move(url)).rejects.toThrow(/something in that database already/)
  }, 120_000)

  it('is refused, with nothing changed, while a Plauder runs, without a database, and where no server answers', async () => {
    const url = await freshDatabase()
    const unlock = await lockFolder(dataFolder)
    await expect(move(url)).rejects.toThrow(/Stop it first/)
    unlock()
    const nothing = mkdtempSync(join(tmpdir(), 'plauder-move-'))
    await expect(moveToServer({ dataFolder: nothing, url, threadFile, migrationsFolder: join(parts, 'migrations') })).rejects.toThrow(/no embedded database/)
    rmSync(nothing, { recursive: true })
    await expect(move('postgres://nobody@127.0.0.1:1/none')).rejects.toThrow(/cannot be reached/)
    const client = new pg.Client({ connectionString: url })
    await client.connect()
    expect(await tablesOf(client)).toEqual([])
    await client.end()
  }, 60_000)
})
