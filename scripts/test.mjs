// bin/test: every check there is; a failed one does not hide the others. `--quick` for while you work.
import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { HEADLESS } from './chromium.mjs'
import { installIfNeeded } from './prepare.mjs'

/** Debian's own packages that the tests drive: a browser, a database server, and Perl's Encode as an outside source. */
const NEEDED = [['chromium-headless-shell', HEADLESS], ['postgresql', '/usr/lib/postgresql'], ['perl', '/usr/bin/perl']]

function installFromDebian() {
  const missing = NEEDED.filter(([, file]) => !existsSync(file)).map(([name]) => name)
  if (missing.length === 0) return
  const sudo = process.getuid?.() === 0 ? [] : ['sudo']
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args]
    execFileSync(command, rest, { stdio: ['ignore', 'ignore', 'inherit'] })
  }
  console.log(`Installing ${missing.join(' and ')} from Debian…`)
  apt('update', '-qq')
  apt('install', '-y', '-qq', ...missing)
}

const totals = { passed: 0, failed: 0 }

/** The last lines of each check that failed: said once more at the end, where whoever looks will look. */
const failures = []
const LAST_LINES = 120

function count(name, status, counts, begun) {
  const counted = counts && existsSync(counts) ? JSON.parse(readFileSync(counts, 'utf8')) : { passed: status === 0 ? 1 : 0, failed: 0 }
  if (status !== 0 && counted.failed === 0) counted.failed = 1
  totals.passed += counted.passed
  totals.failed += counted.failed
  console.log(`== ${name}: ${counted.passed} passed, ${counted.failed} failed (${Math.round((Date.now() - begun) / 1000)} s)`)
}

/** No check takes half as long, even on a slow machine: one that does has got stuck, and the others still have their turn. */
const LONGEST_MS = 40 * 60_000

const running = new Set()
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => {
  for (const end of running) end()
  process.exit(1)
})

const ENV = { ...process.env, FORCE_COLOR: '0' }

/**
 * Runs one check. Those that count their tests leave the counts in a file; the others count as one.
 *
 * @param {{ name: string, command: string[], counts?: string, env?: object }} check
 * @param {boolean} aloud says everything as it comes; else in one piece, at the end
 */
async function run({ name, command: [program, ...args], counts, env }, aloud) {
  const begun = Date.now()
  if (counts) rmSync(counts, { force: true })
  let said = ''
  if (aloud) console.log(`\n== ${name}`)
  // a group of its own: what a check has started ends with it, and holds its output open no longer
  const child = spawn(program, args, { detached: true, stdio: ['ignore', 'pipe', 'pipe'], env: { ...ENV, ...env, ...counts && { COUNTS: counts } } })
  const endAll = () => {
    try {
      process.kill(-child.pid, 'SIGKILL')
    }
    catch {
      // all have ended
    }
  }
  running.add(endAll)
  const tooLong = setTimeout(() => {
    said += `\nended: it took longer than ${LONGEST_MS / 60_000} minutes`
    endAll()
  }, LONGEST_MS)
  for (const stream of [child.stdout, child.stderr]) stream.setEncoding('utf8').on('data', (piece) => {
    said += piece
    if (aloud) process.stdout.write(piece)
  })
  child.once('exit', endAll)
  const [status] = await once(child, 'close')
  clearTimeout(tooLong)
  running.delete(endAll)
  if (!aloud) console.log(`\n== ${name}\n${said}`)
  if (status !== 0) failures.push(`== ${name}, its last lines\n${said.trimEnd().split('\n').slice(-LAST_LINES).join('\n')}`)
  count(name, status, counts, begun)
}

/** Checks that go beside each other; what comes in one list waits for what came before. */
async function inOrder(...steps) {
  for (const beside of steps) await Promise.all(beside.map(check => run(check, beside.length === 1)))
}

const npm = (name, script, counts, args = []) => ({ name, command: ['npm', 'run', '--silent', script, ...args.length > 0 ? ['--', ...args] : []], counts })
const BUILD = { name: 'build', command: ['node', '--eval', 'import("./scripts/prepare.mjs").then(prepare => prepare.buildIfNeeded())'] }

/** The longer ones, about half of the time that all take; whatever else there is makes the other half. */
const FIRST_HALF = ['bad-input', 'bulk', 'bulk-answers', 'calling', 'everyone', 'groups', 'matters', 'rounds', 'set-up', 'wording'].map(name => `tests/e2e/${name}.spec.ts`)
const browserTests = readdirSync('tests/e2e').filter(file => file.endsWith('.spec.ts')).map(file => `tests/e2e/${file}`)
const halves = [FIRST_HALF, browserTests.filter(file => !FIRST_HALF.includes(file))]

/** Half of the browser's tests, in a world of its own: most of the time they wait for a page. */
const browser = half => ({ ...npm(`in a browser, ${half} of 2`, 'e2e', `.cache/count-e2e-${half}.json`, halves[half - 1]), env: { E2E_PORT: String(4600 + 10 * half) } })

/** Half of the kills: most of the time they wait for something to start. */
const kills = (which, port) => ({ ...npm(`kills of ${which}`, 'kills', `.cache/count-kills-${which}.json`, [which]), env: { KILL_PORT: String(port) } })

/** Two, so that they are done beside each other. */
const TYPES = [npm('types of the pages', 'types:app'), npm('types of the rest', 'types:rest')]

const EVERYTHING = [
  [npm('lint', 'lint'), ...TYPES],
  [npm('unit tests', 'unit', '.cache/count-jest.json')],
  [BUILD],
  [browser(1), browser(2)],
  [npm('the use cases on a server', 'unit:server', '.cache/count-server.json'), kills('texts', 4710), kills('rest', 4730)],
  [
    kills('bulk', 4750),
    npm('two beside each other', 'beside', '.cache/count-beside.json'),
    npm('every bench, small', 'bench', undefined, ['--small']),
    npm('wandering', 'wander', '.cache/count-wander.json', ['--walks', '3', '--steps', '20']),
  ],
]

/** What has changed since main as others know it, or since the last commit, with what it imports; no kills, no server, no browser. */
function quick() {
  const upstream = spawnSync('git', ['merge-base', 'HEAD', 'origin/main'], { encoding: 'utf8' }).stdout?.trim()
  const since = upstream || spawnSync('git', ['rev-parse', 'HEAD~1'], { encoding: 'utf8' }).stdout.trim()
  return [
    [npm('lint', 'lint'), ...TYPES],
    [npm('unit tests of what has changed', 'unit', '.cache/count-jest.json', ['--changedSince', since, '--passWithNoTests'])],
  ]
}

const unknown = process.argv.slice(2).filter(argument => argument !== '--quick')
if (unknown.length > 0) {
  console.error(`bin/test does not know ${unknown.join(' ')}. It knows --quick, for while you work.`)
  process.exit(2)
}
const isQuick = process.argv.includes('--quick')
if (!isQuick) installFromDebian()
installIfNeeded()
execFileSync('npx', ['nuxt', 'prepare', '--logLevel', 'silent'], { stdio: ['ignore', 'ignore', 'inherit'] })
await inOrder(...isQuick ? quick() : EVERYTHING)

for (const failure of failures) console.log(`\n${failure}`)
console.log(`\n${totals.passed} passed, ${totals.failed} failed`)
process.exit(totals.failed === 0 ? 0 : 1)
