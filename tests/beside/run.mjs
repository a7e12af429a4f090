// Two processes beside each other on one PostgreSQL server, as colleagues use them: what happens at one is told at the
// other, each text goes once, one round hands nobody out twice, and what a process leaves behind when it dies is done.
import assert from 'node:assert/strict'
import { randomUUID } from 'node:crypto'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { copyDemo } from '../../scripts/laid-demo.mjs'
import { startPostgres } from '../../scripts/postgres.mjs'
import { startApplication, startPractice, stop } from '../../scripts/world.mjs'

const port = Number(process.env.BESIDE_PORT ?? 4760)
const places = [`http://127.0.0.1:${port}`, `http://127.0.0.1:${port + 2}`]
const handsets = `http://127.0.0.1:${port + 1}/handsets/api`
const folder = mkdtempSync(join(tmpdir(), 'plauder-beside-'))
const pause = ms => new Promise(done => setTimeout(done, ms))

const server = await startPostgres({ durable: false })
process.env.DATABASE_URL = server.url('postgres')
process.env.PLAUDER_BUILD = resolve('.output/parts')
process.env.PLAUDER_QUIET = '1'
const { DEMO_PASSWORD } = await import(pathToFileURL(resolve('.output/parts/demo.mjs')).href)
await copyDemo(folder)

const practice = startPractice({ folder, port, practicePort: port + 1, env: { PRACTICE_PER_SECOND: '100', PRACTICE_PACE: '{"sent":20,"delivered":60}', PRACTICE_CALL_PACE: '{"ringing":0}' } })
// both bring the tables up to date and begin at the same moment
const applications = [port, port + 2].map(own => startApplication({ folder, port: own, practicePort: port + 1, env: { PLAUDER_LOG: 'silent' }, stderr: 'pipe' }))
/** What both say to whoever looks after them. */
let complained = ''
for (const { child } of applications) child.stderr.on('data', chunk => complained += chunk)
const children = [...applications, practice].map(({ child }) => child)
process.once('exit', () => children.forEach(child => child.kill('SIGKILL')))
await Promise.all([practice.open, ...applications.map(({ healthy }) => healthy)])

/** A colleague's way to ask at either place: a sign-in holds at both. */
async function signIn(who) {
  const answer = await fetch(`${places[0]}/api/sign-in`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ mail: `${who}@pannier.example`, password: DEMO_PASSWORD }) })
  const cookie = answer.headers.get('set-cookie').split(';')[0]
  return {
    cookie,
    async ask(place, path, body, method = body ? 'POST' : 'GET') {
      const response = await fetch(`${places[place]}${path}`, { method, headers: { cookie, 'content-type': 'application/json' }, body: body && JSON.stringify(body), signal: AbortSignal.timeout(20_000) })
      const said = await response.text()
      assert.ok(response.ok, `${path} answered ${response.status}: ${said}`)
      return said && JSON.parse(said)
    },
  }
}

async function until(what, done, seconds = 20) {
  const end = Date.now() + seconds * 1_000
  while (Date.now() < end) {
    if (await done()) return
    await pause(100)
  }
  throw new Error(`After ${seconds} s still not: ${what}`)
}

/** Every notice that this colleague's browser is told at a place. */
async function noticesAt(place, { cookie }) {
  const heard = []
  const response = await fetch(`${places[place]}/api/live`, { headers: { cookie } })
  void (async () => {
    for await (const chunk of response.body) heard.push(...[...Buffer.from(chunk).toString().matchAll(/^data: (\{.*\})$/gm)].map(([, notice]) => JSON.parse(notice)))
  })().catch(() => {})
  return heard
}

/** It is day there, so that nobody is asked about their night. */
function zoneByDay() {
  const hours = (36 - new Date().getUTCHours()) % 24
  return hours <= 12 ? `Etc/GMT-${hours}` : `Etc/GMT+${24 - hours}`
}

let numbers = 0
async function makeLead({ ask }) {
  const [id, number] = [randomUUID(), `+1541555${String(numbers++).padStart(4, '0')}`]
  await ask(0, '/api/records', { id, module: 'lead', firstName: `Beside ${number.slice(-4)}`, zone: zoneByDay(), phones: [{ label: 'mobile', typed: number }] })
  const { phones } = await ask(0, `/api/records/${id}`)
  return { id, number, phoneId: phones[0].id }
}

const textsTo = async number => (await fetch(`${handsets}/texts?phone=${encodeURIComponent(number)}`)).json()

const counts = { passed: 0, failed: 0 }
async function check(name, work) {
  const begun = Date.now()
  try {
    await work()
    counts.passed++
    console.log(`  ✓ ${name} (${Date.now() - begun} ms)`)
  }
  catch (error) {
    counts.failed++
    console.log(`  ✘ ${name}\n    ${String(error.stack).split('\n').slice(0, 12).join('\n    ')}`)
  }
}

try {
  const [ada, mika, odile] = await Promise.all(['ada', 'mika', 'odile'].map(signIn))

  await check('what happens at one is told at the other', async () => {
    const { id } = await makeLead(ada)
    const heard = await noticesAt(1, mika)
    await ada.ask(0, `/api/records/${id}/notes`, { id: randomUUID(), words: 'Ask for the side door.' })
    await until('Mika is told of the note', () => heard.some(notice => notice.kind === 'entry' && notice.recordId === id))
    await ada.ask(0, `/api/records/${id}/presence`, { state: 'writing' })
    await until('Mika is told that somebody is there', () => heard.some(notice => notice.kind === 'presence' && notice.place.id === id))
    const others = await mika.ask(1, `/api/records/${id}/presence`, { state: 'looking' })
    assert.deepEqual(others.map(({ firstName, writing }) => [firstName, writing]), [['Ada', true]])
  })

  await check('each text goes once, whoever sent it where, and the same from both is one', async () => {
    const line = (await ada.ask(0, '/api/lines')).find(({ name }) => name === 'Portland line')
    await until('prices are known', async () => (await ada.ask(1, '/api/lines')).every(({ price }) => price))
    const people = await Promise.all(Array.from({ length: 12 }, () => makeLead(ada)))
    const texts = Array.from({ length: 60 }, (_, i) => ({ id: randomUUID(), to: people[i % people.length], text: `Hi, text ${i} here.` }))
    await Promise.all(texts.flatMap(({ id, to, text }, i) => {
      const send = place => ada.ask(place, '/api/texts', { id, lineId: line.id, phoneId: to.phoneId, text })
      // every fifth is sent at both, as by somebody whose first answer was lost
      return i % 5 === 0 ? [send(0), send(1)] : [send(i % 2)]
    }))
    await until('all are on the handsets', async () => (await Promise.all(people.map(({ number }) => textsTo(number)))).flat().length >= texts.length, 60)
    const arrived = (await Promise.all(people.map(({ number }) => textsTo(number)))).flat().map(({ text }) => text)
    assert.deepEqual(arrived.sort(), texts.map(({ text }) => text).sort())
    const timeline = await mika.ask(1, `/api/records/${people[0].id}/timeline`)
    assert.equal(timeline.entries.filter(({ kind }) => kind === 'text-out').length, 5)
  })

  await check('a round worked at both hands nobody out twice', async () => {
    const people = await Promise.all(Array.from({ length: 18 }, () => makeLead(ada)))
    const id = randomUUID()
    await odile.ask(0, '/api/rounds', { id, name: 'Beside', selection: { list: { module: 'lead', sort: 'name', direction: 'up' }, ids: people.map(person => person.id) }, order: 'list', teamId: (await ada.ask(0, '/api/me')).teams[0].id, pauseSeconds: null })
    const called = []
    await Promise.all([ada, mika, odile].map(async ({ ask }, worker) => {
      for (let turn = worker; ; turn++) {
        const { inHand } = await ask(turn % 2, `/api/rounds/${id}/next`, {})
        if (!inHand) return
        called.push(inHand.recordId)
        const callId = randomUUID()
        // the end of the call before may still be on its way
        await until('they are off the call before', () => ask((turn + 1) % 2, '/api/calls', { id: callId, phoneId: inHand.phoneId, roundId: id }).catch((error) => {
          if (!error.message.includes('on-a-call')) throw error
        }))
        await ask(turn % 2, `/api/calls/${callId}/order`, { order: 'hang-up' })
        await ask(turn % 2, `/api/calls/${callId}/put-away`, {})
      }
    }))
    assert.deepEqual(called.sort(), people.map(person => person.id).sort())
  })

  await check('wrong passwords at both add up', async () => {
    const answers = []
    for (let i = 0; i < 12; i++) {
      const answer = await fetch(`${places[i % 2]}/api/sign-in`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ mail: 'noor@pannier.example', password: 'wrong' }) })
      answers.push(answer.status)
    }
    assert.deepEqual(answers, [...Array.from({ length: 10 }, () => 422), 429, 429])
  })

  await check('a database that is started anew in the middle loses nothing, and nothing that nobody has caught is said', async () => {
    const line = (await ada.ask(0, '/api/lines')).find(({ name }) => name === 'Portland line')
    const person = await makeLead(ada)
    const texts = Array.from({ length: 10 }, (_, i) => ({ id: randomUUID(), text: `Hi, text ${i} around a restart.` }))
    const statuses = new Set()
    const restarting = server.restart()
    await Promise.all(texts.map(async ({ id, text }, i) => {
      // as a browser would: the same until it is answered
      await until('a text is taken', async () => {
        const answer = await fetch(`${places[i % 2]}/api/texts`, { method: 'POST', headers: { 'cookie': ada.cookie, 'content-type': 'application/json' }, body: JSON.stringify({ id, lineId: line.id, phoneId: person.phoneId, text }) })
        statuses.add(answer.status)
        return answer.ok
      }, 30)
    }))
    await restarting
    await until('all are on the handset', async () => (await textsTo(person.number)).length >= texts.length, 60)
    assert.deepEqual((await textsTo(person.number)).map(({ text }) => text).sort(), texts.map(({ text }) => text).sort())
    // in the meantime it was said that the database is away, and not that we are at fault
    assert.deepEqual([...statuses].filter(status => ![200, 503].includes(status)), [])
    await until('both hear of each other again', async () => {
      const { id } = await makeLead(ada)
      const told = await noticesAt(1, mika)
      await pause(300)
      await ada.ask(0, `/api/records/${id}/notes`, { id: randomUUID(), words: 'After the restart.' })
      await pause(700)
      return told.some(notice => notice.recordId === id)
    }, 30)
    assert.doesNotMatch(complained, /uncaught|unhandled/i)
  })

  await check('what a process leaves behind when it dies is done by the other', async () => {
    const line = (await ada.ask(0, '/api/lines')).find(({ name }) => name === 'Portland line')
    const person = await makeLead(ada)
    const texts = ['one', 'two', 'three'].map(word => ({ id: randomUUID(), text: `Hi, this is number ${word}.` }))
    for (const { id, text } of texts) await ada.ask(0, '/api/texts', { id, lineId: line.id, phoneId: person.phoneId, text })
    applications[0].child.kill('SIGKILL')
    await until('all are on the handset', async () => (await textsTo(person.number)).length >= texts.length, 60)
    assert.deepEqual((await textsTo(person.number)).map(({ text }) => text), texts.map(({ text }) => text))
  })
}
finally {
  await Promise.all(children.map(stop))
  server.stop()
  rmSync(folder, { recursive: true, force: true })
}

mkdirSync('.cache', { recursive: true })
writeFileSync(process.env.COUNTS ?? '.cache/count-beside.json', JSON.stringify(counts))
console.log(`${counts.passed} passed, ${counts.failed} failed`)
process.exit(counts.failed === 0 ? 0 : 1)
