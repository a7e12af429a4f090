// bin/test: every check there is, one after the other; a failed one does not hide the others.
import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { installIfNeeded } from './prepare.mjs'

/** Debian's own packages that the tests drive: a browser, a database server, and Perl's Encode as an outside source. */
const NEEDED = [['chromium', '/usr/bin/chromium'], ['postgresql', '/usr/lib/postgresql'], ['perl', '/usr/bin/perl']]

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

function count(name, status, counts, begun) {
  const counted = counts && existsSync(counts) ? JSON.parse(readFileSync(counts, 'utf8')) : { passed: status === 0 ? 1 : 0, failed: 0 }
  if (status !== 0 && counted.failed === 0) counted.failed = 1
  totals.passed += counted.passed
  totals.failed += counted.failed
  console.log(`== ${name}: ${counted.passed} passed, ${counted.failed} failed (${Math.round((Date.now() - begun) / 1000)} s)`)
}

const ENV = { ...process.env, FORCE_COLOR: '0' }

/** Runs one check. Those that count their tests leave the counts in a file; the others count as one. */
function check(name, command, args, counts) {
  console.log(`\n== ${name}`)
  if (counts) rmSync(counts, { force: true })
  const begun = Date.now()
  const { status } = spawnSync(command, args, { stdio: ['ignore', 'inherit', 'inherit'], env: ENV })
  count(name, status, counts, begun)
}

/** Runs checks beside each other that need one processor each; what each says is told in one piece. */
async function checkBeside(checks) {
  await Promise.all(checks.map(async ([name, command, args]) => {
    const begun = Date.now()
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], env: ENV })
    let said = ''
    for (const stream of [child.stdout, child.stderr]) stream.on('data', chunk => said += chunk)
    const [status] = await once(child, 'close')
    console.log(`\n== ${name}\n${said}`)
    count(name, status, undefined, begun)
  }))
}

installFromDebian()
installIfNeeded()
execFileSync('npx', ['nuxt', 'prepare', '--logLevel', 'silent'], { stdio: ['ignore', 'ignore', 'inherit'] })
await checkBeside([
  ['lint', 'npm', ['run', '--silent', 'lint']],
  ['types', 'npm', ['run', '--silent', 'types']],
])
check('unit tests', 'npm', ['run', '--silent', 'unit'], '.cache/count-jest.json')
check('the use cases on a server', 'npm', ['run', '--silent', 'unit:server'], '.cache/count-server.json')
check('build', 'node', ['--eval', 'import("./scripts/prepare.mjs").then(prepare => prepare.buildIfNeeded())'])
check('in a browser', 'npm', ['run', '--silent', 'e2e'], '.cache/count-e2e.json')
check('kills', 'npm', ['run', '--silent', 'kills'], '.cache/count-kills.json')
check('two beside each other', 'npm', ['run', '--silent', 'beside'], '.cache/count-beside.json')

console.log(`\n${totals.passed} passed, ${totals.failed} failed`)
process.exit(totals.failed === 0 ? 0 : 1)
