// bin/test: every check there is, one after the other; a failed one does not hide the others.
import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { installIfNeeded } from './prepare.mjs'

/** Debian's own packages that the tests drive: a browser, and Perl's Encode as an outside source. */
const NEEDED = [['chromium', '/usr/bin/chromium'], ['perl', '/usr/bin/perl']]

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

/** Runs one check. Those that count their tests leave the counts in a file; the others count as one. */
function check(name, command, args, counts) {
  console.log(`\n== ${name}`)
  if (counts) rmSync(counts, { force: true })
  const begun = Date.now()
  const { status } = spawnSync(command, args, { stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, FORCE_COLOR: '0' } })
  const counted = counts && existsSync(counts) ? JSON.parse(readFileSync(counts, 'utf8')) : { passed: status === 0 ? 1 : 0, failed: 0 }
  if (status !== 0 && counted.failed === 0) counted.failed = 1
  totals.passed += counted.passed
  totals.failed += counted.failed
  console.log(`== ${name}: ${counted.passed} passed, ${counted.failed} failed (${Math.round((Date.now() - begun) / 1000)} s)`)
}

installFromDebian()
installIfNeeded()
execFileSync('npx', ['nuxt', 'prepare', '--logLevel', 'silent'], { stdio: ['ignore', 'ignore', 'inherit'] })
check('lint', 'npm', ['run', '--silent', 'lint'])
check('types', 'npm', ['run', '--silent', 'types'])
check('unit tests', 'npm', ['run', '--silent', 'unit'], '.cache/count-jest.json')
check('build', 'node', ['--eval', 'import("./scripts/prepare.mjs").then(prepare => prepare.buildIfNeeded())'])
check('in a browser', 'npm', ['run', '--silent', 'e2e'], '.cache/count-e2e.json')
check('kills', 'npm', ['run', '--silent', 'kills'], '.cache/count-kills.json')

console.log(`\n${totals.passed} passed, ${totals.failed} failed`)
process.exit(totals.failed === 0 ? 0 : 1)
