// npm run unit:server: the use cases once more, on a PostgreSQL server of its own instead of the embedded database.
import { spawn } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { build } from 'esbuild'
import pg from 'pg'
import { startPostgres } from '../scripts/postgres.mjs'

const server = await startPostgres({ durable: false })
const client = new pg.Client({ connectionString: server.url('postgres') })
await client.connect()
await client.query('create database empty')
await client.end()

mkdirSync('.cache', { recursive: true })
await build({ entryPoints: ['server/db/server/migrate.ts'], bundle: true, platform: 'node', format: 'esm', packages: 'external', outfile: '.cache/migrate.mjs', logLevel: 'warning' })
const { bringUpToDate } = await import(pathToFileURL(resolve('.cache/migrate.mjs')).href)
await bringUpToDate(server.url('empty'), 'server/db/migrations')

const folder = 'tests/unit/server'
/** Long, and about what is refused before any database is asked. */
const ALIKE_ON_BOTH = ['fuzz.spec.ts']
const withDatabase = readdirSync(folder).filter(file => !ALIKE_ON_BOTH.includes(file)).map(file => join(folder, file))
  .filter(file => /useDatabase\(\)|TEST_SERVER/.test(readFileSync(file, 'utf8')))
const wanted = process.argv.slice(2)
const jest = spawn(process.execPath, ['node_modules/jest/bin/jest.js', ...wanted.length > 0 ? wanted : withDatabase], {
  stdio: 'inherit',
  env: { ...process.env, NODE_OPTIONS: '--experimental-vm-modules', TEST_SERVER: server.url('').slice(0, -1), COUNTS: process.env.COUNTS ?? '.cache/count-server.json' },
})
jest.once('exit', code => process.exit(code ?? 1))
