// npm run unit:server: the use cases once more, on a PostgreSQL server of its own instead of the embedded database.
import { spawn } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import { resolve } from 'node:path'
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

const tests = process.argv.slice(2)
const jest = spawn(process.execPath, ['node_modules/jest/bin/jest.js', ...(tests.length > 0 ? tests : ['tests/unit/server', '--testPathIgnorePatterns', 'embedded.spec'])], {
  stdio: 'inherit',
  env: { ...process.env, NODE_OPTIONS: '--experimental-vm-modules', TEST_SERVER: server.url('').slice(0, -1), COUNTS: '.cache/count-server.json' },
})
jest.once('exit', code => process.exit(code ?? 1))
