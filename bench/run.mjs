// npm run bench: ratios within one run, one a line as `name ratio limit`. `npm run bench -- timeline` runs one of them;
// with BENCH_ON=server on a PostgreSQL server of its own instead of the embedded database. `--small` only sees that each still runs.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { resolve } from 'node:path'
import { build } from 'esbuild'
import pg from 'pg'
import { startPostgres } from '../scripts/postgres.mjs'
import { buildIfNeeded } from '../scripts/prepare.mjs'

const ALL = ['measure', 'templates', 'way-out', 'interface', 'bulk', 'bulk-out', 'shelf', 'keys', 'lists', 'found', 'rounds', 'timeline', 'inbox', 'imports']
const wanted = process.argv.slice(2).filter(argument => argument !== '--small')
const small = process.argv.includes('--small')
if (small) process.env.BENCH_SMALL = '1'
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

/** Runs one to its end; what it says comes in one piece where others run beside it. */
async function run(name, aloud) {
  const env = server ? { ...process.env, DATABASE_URL: await emptyDatabase(name) } : process.env
  const begun = Date.now()
  const child = spawn(process.execPath, [`.cache/bench/${name}.mjs`], { stdio: aloud ? 'inherit' : 'pipe', env })
  let said = ''
  for (const stream of [child.stdout, child.stderr]) stream?.setEncoding('utf8').on('data', piece => said += piece)
  const [status] = await once(child, 'close')
  console.log(`${said}# ${name} took ${Math.round((Date.now() - begun) / 1000)} s`)
  if (status !== 0) failed.push(name)
}

const failed = []
const left = ALL.filter(name => wanted.length === 0 || wanted.includes(name))
// where no figure decides, two run beside each other
const hands = small ? 2 : 1
await Promise.all(Array.from({ length: hands }, async () => {
  for (let name = left.shift(); name; name = left.shift()) await run(name, hands === 1)
}))
if (failed.length > 0) console.log(`\nfailed: ${failed.join(', ')}`)
process.exit(failed.length > 0 ? 1 : 0)
