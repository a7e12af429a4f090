// npm run bench: ratios within one run, one a line as `name ratio limit`. `npm run bench -- timeline` runs one of them;
// with BENCH_ON=server on a PostgreSQL server of its own instead of the embedded database. `--small` only sees that each still runs.
import { spawnSync } from 'node:child_process'
import { resolve } from 'node:path'
import { build } from 'esbuild'
import pg from 'pg'
import { startPostgres } from '../scripts/postgres.mjs'
import { buildIfNeeded } from '../scripts/prepare.mjs'

const ALL = ['measure', 'templates', 'way-out', 'interface', 'keys', 'lists', 'found', 'rounds', 'timeline', 'imports']
const wanted = process.argv.slice(2).filter(argument => argument !== '--small')
if (process.argv.includes('--small')) process.env.BENCH_SMALL = '1'
buildIfNeeded()
await build({ entryPoints: ALL.map(name => `bench/${name}.ts`), bundle: true, platform: 'node', format: 'esm', packages: 'external', outdir: '.cache/bench', outExtension: { '.js': '.mjs' }, alias: { '~~': resolve('.') }, logLevel: 'warning' })
process.env.PLAUDER_BUILD = resolve('.output/parts')
process.env.PLAUDER_LOG = 'silent'
const server = process.env.BENCH_ON === 'server' ? await startPostgres({ durable: true }) : null

/** Each begins with an empty database. */
async function emptyDatabase(name) {
  const client = new pg.Client({ connectionString: server.url('postgres') })
  await client.connect()
  await client.query(`create database "${name}"`)
  await client.end()
  return server.url(name)
}

let failed = false
for (const name of ALL.filter(name => wanted.length === 0 || wanted.includes(name))) {
  const env = server ? { ...process.env, DATABASE_URL: await emptyDatabase(name) } : process.env
  if (spawnSync(process.execPath, [`.cache/bench/${name}.mjs`], { stdio: 'inherit', env }).status !== 0) failed = true
}
process.exit(failed ? 1 : 0)
