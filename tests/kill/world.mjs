// What the kill tests share: a world whose processes are killed, frozen and started again, and how to ask it.
import assert from 'node:assert/strict'
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { copyDemo } from '../../scripts/laid-demo.mjs'
import { startApplication, startPractice, stop } from '../../scripts/world.mjs'

process.env.PLAUDER_BUILD = resolve('.output/parts')
process.env.PLAUDER_QUIET = '1'
const { DEMO_PASSWORD } = await import(pathToFileURL(resolve('.output/parts/demo.mjs')).href)

export const pause = ms => new Promise(done => setTimeout(done, ms))
export const sorted = list => [...list].sort()

/** Longer than anything takes that is killed again and again; who insists longer would wait for ever. */
const INSISTS_MS = 480_000

/** How long one that is to be killed may take to serve before: a machine that is slow would else never come to anything. */
const SERVES_WITHIN_S = 90

/** A number for each seed, from 0 to 1 again and again. */
export function randomFrom(seed) {
  let state = seed
  return () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 4_294_967_296
}

/** What is waited for is killed all the while, and a slow machine is away for longer than it is there: how long it takes is no matter here. */
const PATIENCE = 3

export async function until(what, done, seconds) {
  const end = Date.now() + seconds * PATIENCE * 1_000
  while (Date.now() < end) {
    if (await done().catch(() => false)) return
    await pause(150)
  }
  throw new Error(`After ${seconds * PATIENCE} s still not: ${what}`)
}

/** A zone in which it is noon, so that nothing of this waits for a morning. */
export function zoneByDay() {
  const hours = (36 - new Date().getUTCHours()) % 24
  return hours <= 12 ? `Etc/GMT-${hours}` : `Etc/GMT+${24 - hours}`
}

/** Counts what held and what did not. */
export const counts = { passed: 0, failed: 0, deaths: 0 }
export function check(name, work) {
  try {
    work()
    counts.passed++
    console.log(`  ✓ ${name}`)
  }
  catch (error) {
    counts.failed++
    console.log(`  ✘ ${name}\n    ${error.message.split('\n').slice(0, 14).join('\n    ')}`)
  }
}

/**
 * Lays the demo data and keeps an application and a carrier running: whichever dies is started again, with the first named
 * place at which it has not died yet.
 *
 * @param {{ port: number, seed: number, points: { application: string[], carrier: string[] }, practice: object }} how
 */
export async function killedWorld({ port, seed, points, practice = {} }) {
  const folder = mkdtempSync(join(tmpdir(), 'plauder-kill-'))
  const clock = join(folder, 'clock')
  writeFileSync(clock, '0')
  const address = `http://127.0.0.1:${port}`
  const markers = { application: point => join(folder, `crashed-${point}`), carrier: point => join(folder, 'practice', `crashed-${point}`) }
  const clocked = { KILL_CLOCK: clock, NODE_OPTIONS: `--import=${pathToFileURL(resolve('tests/kill/clock.mjs')).href}` }

  function keepRunning(name, begin) {
    const kept = { child: null, deaths: 0, stopping: false, name }
    const start = () => {
      const point = points[name].find(one => !existsSync(markers[name](one)))
      const begun = begin(point ?? '', kept.deaths)
      begun.open?.catch(() => {})
      begun.healthy?.catch(() => {})
      kept.child = begun.child
      kept.child.once('exit', () => {
        kept.deaths++
        if (!kept.stopping) start()
      })
    }
    start()
    return kept
  }

  // whatever ends this process ends what it has started: what lived on would hold its output open, and its port
  process.once('exit', () => {
    for (const { child } of Object.values(kept)) child.kill('SIGKILL')
  })
  await copyDemo(folder)
  const kept = {
    // a seed for each of its lives: with one for all, each would begin with the same luck, and none live to see another
    carrier: keepRunning('carrier', (point, life) => startPractice({ folder, port, practicePort: port + 1, env: { ...clocked, PRACTICE_SEED: String(seed + life), PRACTICE_CRASH_AT: point, ...practice } })),
    application: keepRunning('application', point => startApplication({ folder, port, practicePort: port + 1, env: { ...clocked, PLAUDER_CATCH_UP_MS: '1000', PLAUDER_CRASH_AT: point, PLAUDER_LOG: process.env.KILL_LOG ?? 'silent' } })),
  }
  await until('the application can serve', async () => (await fetch(`${address}/api/ready`)).ok, 60)

  /** As a colleague's browser would ask: `insist` asks the same, with the same ids, until it is answered. */
  async function signIn(who) {
    let cookie = ''
    async function ask(path, body, method = body ? 'POST' : 'GET', type = 'application/json') {
      const response = await fetch(`${address}${path}`, { method, headers: { cookie, 'content-type': type }, body: body && (Buffer.isBuffer(body) ? body : JSON.stringify(body)), signal: AbortSignal.timeout(10_000) })
      if (response.status >= 500) throw new Error(`${path} answered ${response.status}`)
      assert.ok(response.ok, `${path} answered ${response.status}: ${await response.clone().text()}`)
      return response
    }
    async function insist(path, body, method, type) {
      const end = Date.now() + INSISTS_MS
      for (;;) {
        try {
          const response = await ask(path, body, method, type)
          const said = await response.text()
          return said ? JSON.parse(said) : null
        }
        catch (error) {
          if (error instanceof assert.AssertionError) throw error
          if (Date.now() > end) throw new Error(`Nobody has answered ${path} for ${INSISTS_MS / 1_000} s: ${error.message}`, { cause: error })
          await pause(200)
        }
      }
    }
    const end = Date.now() + INSISTS_MS
    while (Date.now() < end) {
      const signedIn = await ask('/api/sign-in', { mail: `${who}@pannier.example`, password: DEMO_PASSWORD }).catch(() => null)
      if (signedIn) {
        cookie = signedIn.headers.get('set-cookie').split(';')[0]
        return { ask, insist }
      }
      await pause(200)
    }
    throw new Error(`${who} could not sign in for ${INSISTS_MS / 1_000} s`)
  }

  const handset = async (path, body) => {
    const end = Date.now() + INSISTS_MS
    while (Date.now() < end) {
      const answer = await fetch(`http://127.0.0.1:${port + 1}/handsets/api${path}`, { ...body && { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }, signal: AbortSignal.timeout(5_000) }).catch(() => null)
      if (answer) return answer.json().catch(() => null)
      await pause(200)
    }
    throw new Error(`No handset has answered ${path} for ${INSISTS_MS / 1_000} s`)
  }

  const all = Object.values(kept)
  const serves = {
    application: async () => (await fetch(`${address}/api/ready`, { signal: AbortSignal.timeout(5_000) })).ok,
    carrier: async () => (await fetch(`http://127.0.0.1:${port + 1}/handsets/api/phones`, { signal: AbortSignal.timeout(5_000) })).ok,
  }
  let killed = 0
  return {
    folder,
    address,
    kept,
    markers,
    signIn,
    /** Kills one that has served for so long, and every fifth time whatever it does, while it starts perhaps. */
    async kill(name, ms) {
      if (++killed % 5 > 0) await until(`the ${name} serves`, serves[name], SERVES_WITHIN_S)
      await pause(ms)
      kept[name].child.kill('SIGKILL')
    },
    handset,
    textsTo: number => handset(`/texts?phone=${encodeURIComponent(number)}`),
    deaths: () => all.reduce((sum, one) => sum + one.deaths, 0),
    /** Sets the clocks of both off by so much, and starts both again with it. */
    async setClock(ms) {
      writeFileSync(clock, String(ms))
      for (const one of all) one.child.kill('SIGKILL')
      await pause(500)
      await until('the application can serve by its new clock', async () => (await fetch(`${address}/api/ready`)).ok, 60)
    },
    async end() {
      for (const one of all) one.stopping = true
      for (const one of all) one.child.kill('SIGCONT')
      counts.deaths += all.reduce((sum, one) => sum + one.deaths, 0)
      console.log(`  ${all.map(one => `${one.name} died ${one.deaths} times`).join(', ')}`)
      await Promise.all(all.map(one => stop(one.child)))
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
