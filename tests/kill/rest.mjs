// Everything else that is under way while both processes are killed and the carrier is frozen: scheduled texts, texts taken back,
// STOPs, pictures, calls, mailboxes, recordings, transfers, what is taken back of files and of changes, clocks that are moved,
// events that nobody can read, and a second Plauder that comes to the same folder by another path.
import assert from 'node:assert/strict'
import { execFileSync, spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { existsSync, mkdtempSync, readFileSync, rmSync, symlinkSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import { secretsFor } from '../../scripts/world.mjs'
import { check, killedWorld, pause, randomFrom, sorted, until, zoneByDay } from './world.mjs'

const POINTS = { application: ['dialling', 'handing-over', 'event-stored'], carrier: [] }
const FAULTS = { lateUpToMs: 200, reportTwice: 0.1, reportLost: 0.1, answerLost: 0.05, oddEvents: 0.1 }
const HOUR = 3_600_000
const FROZEN_MS = 12_000
const LEAVE_FROM = '+15035550118'

/** @param {{ port: number, seed: number, kills: number }} how many random kills there are at least */
export async function everythingElseIsKilled({ port, seed, kills }) {
  const random = randomFrom(seed)
  const world = await killedWorld({ port, seed, points: POINTS, practice: { PRACTICE_PER_SECOND: '40', PRACTICE_PACE: '{"sent":20,"delivered":60}', PRACTICE_FAULTS: JSON.stringify(FAULTS), PRACTICE_CALL_PACE: '{"ringing":50,"pickUp":300,"mailbox":600,"speaking":0.1}' } })
  const { folder, kept, markers, handset, textsTo } = world
  const [ada, mika, rafe] = [await world.signIn('ada'), await world.signIn('mika'), await world.signIn('rafe')]
  const { insist } = ada

  let numbers = 0
  async function lead(name) {
    const [id, number] = [randomUUID(), `+1425555${String(100 + numbers++).padStart(4, '0')}`]
    await insist('/api/records', { id, module: 'lead', firstName: name, zone: zoneByDay(), phones: [{ label: 'mobile', typed: number }] })
    return { id, number, phoneId: (await insist(`/api/records/${id}`)).phones[0].id }
  }
  const lineId = async () => (await insist('/api/lines')).find(one => one.name === 'Portland line').id
  const text = (to, words, more = {}) => ({ id: randomUUID(), to, words, more })
  const entriesOf = async ({ id }) => (await insist(`/api/records/${id}/timeline`)).entries
  const messagesOf = async who => (await entriesOf(who)).filter(({ kind }) => kind === 'text-out')
  const arrived = async ({ number }) => (await textsTo(number)).filter(({ direction }) => direction === 'in')

  let killing = true
  try {
    await until('prices are known', async () => (await insist('/api/lines')).every(one => one.price), 30)
    const from = await lineId()
    const send = ({ id, to, words, more }) => insist('/api/texts', { id, lineId: from, phoneId: to.phoneId, text: words, nightAllowed: true, ...more })

    const killed = (async () => {
      for (let i = 0; killing || i < kills; i++) {
        const lives = 700 + random() * 2_000
        // frozen: it takes connections and answers nobody
        if (i % 6 === 5) {
          await pause(lives)
          kept.carrier.child.kill('SIGSTOP')
          await pause(FROZEN_MS)
          kept.carrier.child.kill('SIGCONT')
        }
        else await world.kill(random() < 0.45 ? 'carrier' : 'application', lives)
      }
    })()

    const scheduled = (async () => {
      const to = await lead('Scheduled')
      const texts = []
      for (let i = 0; i < 4; i++) texts.push(await sendLater(text(to, `Scheduled ${i}`)))
      return { to, texts }
    })()

    /** Two minutes ahead; and again, where nobody has answered until that had passed. */
    async function sendLater(one) {
      for (;;) {
        const at = new Date(Math.ceil((Date.now() + 120_000) / 60_000) * 60_000)
        try {
          await send({ ...one, more: { later: { wallTime: at.toISOString().slice(0, 16), zone: 'Etc/UTC' } } })
          return { ...one, at }
        }
        catch (error) {
          if (!error.message.includes('has passed')) throw error
        }
      }
    }

    const takenBack = (async () => {
      const to = await lead('Taken back')
      const texts = Array.from({ length: 16 }, (_, i) => text(to, `Perhaps ${i}`))
      const back = new Set()
      for (const [i, one] of texts.entries()) {
        await send(one)
        if (i % 2) continue
        if (i % 4) await pause(random() * 6_000)
        const taken = await insist(`/api/texts/${one.id}/take-back`, {}).catch(error => error)
        // asked again after a kill, the second answer is that it cannot be any more: what became of it is told by its state
        if (!(taken instanceof Error) || (await messagesOf(to)).find(({ message }) => message.id === one.id)?.message.state === 'taken-back') back.add(one.id)
      }
      return { to, texts, back }
    })()

    const stopped = Promise.all(Array.from({ length: 4 }, async (_, person) => {
      const to = await lead(`Stops ${person}`)
      const texts = Array.from({ length: 8 }, (_, i) => text(to, `Before or after ${i}`))
      for (const [i, one] of texts.entries()) {
        if (i === 4) await handset('/texts', { phone: to.number, to: LEAVE_FROM, text: 'STOP' })
        const sent = await send(one).catch(error => error)
        if (sent instanceof Error) assert.match(sent.message, /opted-out/)
        await pause(random() * 1_500)
      }
      return to
    }))

    const pictured = (async () => {
      const to = await lead('Pictured')
      const pictureId = randomUUID()
      const file = await sharp({ create: { width: 200, height: 100, channels: 3, background: '#7a2450' } }).png().toBuffer()
      await insist(`/api/pictures/${pictureId}`, file, 'PUT', 'image/png')
      const one = text(to, 'Look at this', { pictureIds: [pictureId] })
      await send(one)
      return { to, one }
    })()

    const called = (async () => {
      const calls = []
      for (let i = 0; i < 6; i++) {
        const to = await lead(`Called ${i}`)
        const id = randomUUID()
        const dialled = await insist('/api/calls', { id, phoneId: to.phoneId, nightAllowed: true }).catch(error => error)
        assert.ok(!(dialled instanceof Error), dialled?.message)
        if (i % 2) {
          // handed to a colleague, as far as it comes
          await pause(700)
          const colleague = await mika.insist('/api/me')
          await ada.ask(`/api/calls/${id}/transfer`, { id: randomUUID(), toId: colleague.id, way: 'blind' }).catch(() => {})
          await mika.ask(`/api/calls/${id}/transfer/step`, { step: 'take' }).catch(() => {})
        }
        for (const who of [ada, mika]) {
          await until('the call is over', async () => {
            const mine = (await who.insist('/api/calls')).calls.filter(({ facts }) => facts.endedAt === null)
            for (const one of mine) if (one.mine) await who.ask(`/api/calls/${one.id}/order`, { order: 'hang-up' }).catch(() => {})
            return mine.every(one => !one.mine)
          }, 90)
          await who.ask(`/api/calls/${id}/put-away`, {}).catch(() => {})
        }
        calls.push(id)
      }
      return calls
    })()

    const leads = { module: 'lead', sort: 'name', direction: 'up', words: '', where: '' }
    const countOf = async (module, where) => (await insist(`/api/records/count?${new URLSearchParams({ ...leads, module, where })}`)).total
    const undone = (async () => {
      const bulk = { id: randomUUID(), selection: { list: leads, ids: null }, change: { kind: 'add-tag', tag: 'for a moment' } }
      const bulkNow = async () => (await insist('/api/bulk-changes')).find(({ id }) => id === bulk.id)
      const rows = Array.from({ length: 300 }, (_, i) => [`Undone ${i}`, `undone${i}@import.example`])
      const file = randomUUID()
      const rules = { matching: ['name', 'mail'], country: 'US', dayOrders: [null, null], duplicates: { number: 'join', mail: 'join', name: 'join' }, ownerId: (await insist('/api/me')).id }
      await insist('/api/bulk-changes', bulk)
      await insist('/api/imports', { id: file, module: 'client', fileName: 'undone.csv', headings: ['Name', 'Mail'], total: rows.length, rules })
      await insist(`/api/imports/${file}/rows`, { place: 0, rows }, 'PUT')
      await ada.ask(`/api/imports/${file}/start`, {}).catch(() => insist(`/api/imports/${file}/start`, {}).catch(() => {}))
      await until('the change is done', async () => (await bulkNow()).state === 'done', 120)
      await until('the file is imported', async () => (await insist(`/api/imports/${file}`)).state === 'done', 120)
      const made = (await insist(`/api/imports/${file}`)).made
      await ada.ask(`/api/bulk-changes/${bulk.id}/take-back`, {}).catch(() => insist(`/api/bulk-changes/${bulk.id}/take-back`, {}).catch(() => {}))
      await ada.ask(`/api/imports/${file}/take-back`, {}).catch(() => insist(`/api/imports/${file}/take-back`, {}).catch(() => {}))
      await until('the change is taken back', async () => (await bulkNow()).state === 'taken-back', 120)
      await until('the file is taken back', async () => (await insist(`/api/imports/${file}`)).state === 'taken-back', 120)
      return { made, rows: rows.length }
    })()

    const done = await all({ scheduled, takenBack, stopped, pictured, called, undone })
    killing = false
    await killed
    await until('both are there again', async () => (await fetch(`${world.address}/api/ready`)).ok && (await handset('/phones')) !== null, 60)

    // somebody speaks to a mailbox; the exchange stays, and we die while it rings, while they speak, and before it is fetched
    const mailbox = await (async () => {
      const { id, carrier, languages, records, ownerFirst } = (await rafe.insist('/api/set-up/lines')).find(one => one.name === 'Portland line')
      await rafe.insist(`/api/set-up/lines/${id}`, { carrier, languages, records, ownerFirst, greeting: 'Leave a message.', ringSeconds: 5, hours: null }, 'PUT')
      const to = await lead('Leaves a message')
      await handset('/calls', { phone: to.number, act: 'call', to: LEAVE_FROM })
      await pause(2_000)
      kept.application.child.kill('SIGKILL')
      await until('the mailbox has taken the call', async () => (await handset('/phones')).phones.find(({ number }) => number === to.number)?.call?.state === 'talking', 60)
      kept.application.child.kill('SIGKILL')
      await pause(2_500)
      await handset('/calls', { phone: to.number, act: 'hang-up' })
      kept.application.child.kill('SIGKILL')
      await until('its recording is there', async () => (await entriesOf(to)).some(({ call }) => call?.recording), 60)
      return to
    })()
    const SETTLED = ['delivered', 'held', 'taken-back', 'undelivered', 'failed', 'not-known', 'unreported']
    const everybody = [done.scheduled.to, done.takenBack.to, ...done.stopped, done.pictured.to]
    await until('every text has come to its end', async () => (await Promise.all(everybody.map(messagesOf))).flat().every(({ message }) => SETTLED.includes(message.state)), 150)
    // what never came is asked for a moment later, on a slow machine a long one
    await until('something is set aside', async () => (await rafe.insist('/api/set-up/stuck')).events.length > 0, 30)
    await pause(2_000)

    const tagged = await countOf('lead', JSON.stringify({ match: 'all', of: [{ field: 'tags', test: 'one-of', value: ['for a moment'] }] }))
    const imported = await countOf('client', JSON.stringify({ match: 'all', of: [{ field: 'mail', test: 'contains', value: 'undone' }] }))
    const scheduledArrived = await arrived(done.scheduled.to)
    const backArrived = await arrived(done.takenBack.to)
    const stops = await Promise.all(done.stopped.map(async to => ({ texts: await textsTo(to.number), messages: await messagesOf(to) })))
    const pictureArrived = await arrived(done.pictured.to)
    const shelves = await Promise.all([ada, mika].map(who => who.insist('/api/calls')))
    const callEvents = readFileSync(join(folder, 'practice', 'exchange', 'journal.jsonl'), 'utf8').trim().split('\n').map(row => JSON.parse(row)).filter(entry => entry.do === 'event').map(({ event }) => event)
    const left = (await entriesOf(mailbox)).filter(({ call }) => call?.recording)
    const { events: odd } = await rafe.insist('/api/set-up/stuck')
    const { jobs: broken } = await rafe.insist('/api/set-up/stuck')

    check('every named place was hit', () => {
      for (const point of POINTS.application) assert.ok(existsSync(markers.application(point)), `the application was never killed at ${point}`)
    })
    check('scheduled texts left once each, and not before their time', () => {
      assert.deepEqual(sorted(scheduledArrived.map(one => one.text)), sorted(done.scheduled.texts.map(one => one.words)))
      for (const one of scheduledArrived) assert.ok(one.at >= done.scheduled.texts.find(({ words }) => words === one.text).at.getTime() - 1_000, `${one.text} arrived at ${new Date(one.at).toISOString()}`)
    })
    check('what was taken back never arrived, and everything else once', () => {
      assert.deepEqual(sorted(backArrived.map(one => one.text)), sorted(done.takenBack.texts.filter(({ id }) => !done.takenBack.back.has(id)).map(one => one.words)))
      assert.ok(done.takenBack.back.size > 0)
    })
    check('nothing but one confirmation left for a number after its STOP, and nothing twice', () => {
      for (const { texts, messages } of stops) {
        const inTexts = texts.filter(one => one.direction === 'in').map(one => one.text)
        assert.equal(new Set(inTexts).size, inTexts.length, 'a text arrived twice')
        assert.equal(inTexts.filter(words => words.includes('no more texts')).length, 1, 'there is not one confirmation')
        // what came after it had been handed over before the STOP had been taken
        for (const { message, words } of messages) if (message.state === 'held') assert.ok(!inTexts.includes(words), `${words} was held and arrived`)
        assert.ok(messages.filter(({ message }) => message.state === 'delivered').length <= inTexts.length)
      }
    })
    check('a text with a picture arrived once, with its picture', () => {
      assert.deepEqual(pictureArrived.map(one => [one.text, one.pictures?.length]), [['Look at this', 1]])
    })
    check('each call was made at most once, and nobody is on one', () => {
      for (const id of done.called) assert.ok(new Set(callEvents.filter(({ data }) => data.key === id).map(({ data }) => data.id)).size <= 1, `${id} was dialled twice`)
      for (const { calls } of shelves) assert.deepEqual(calls.filter(one => one.mine && one.facts.endedAt === null), [])
      for (const { calls } of shelves) assert.deepEqual(calls.filter(one => one.transfer), [])
    })
    check('a message that was left is there once', () => assert.equal(left.length, 1))
    check('a change and a file that were taken back left nothing', () => assert.deepEqual([done.undone.made, tagged, imported], [done.undone.rows, 0, 0]))
    check('events that nobody can read are set aside, each once, and nothing broke', () => {
      const ids = odd.map(({ told }) => JSON.parse(told).id)
      assert.ok(ids.length > 0, 'none was set aside')
      assert.deepEqual(ids.filter((id, i) => ids.indexOf(id) !== i), [], 'set aside twice')
      assert.deepEqual(broken, [])
    })

    // more than an hour off: the machine comes back with what was written before, and with a clock two hours on
    const off = await lead('Off')
    const waiting = Array.from({ length: 5 }, (_, i) => text(off, `Written before ${i}`))
    kept.carrier.child.kill('SIGSTOP')
    for (const one of waiting) await send(one)
    const soon = text(off, 'For in half an hour', { later: { wallTime: new Date(Date.now() + 0.5 * HOUR).toISOString().slice(0, 16), zone: 'Etc/UTC' } })
    await send(soon)
    kept.carrier.child.kill('SIGCONT')
    await world.setClock(2 * HOUR)
    await until('what was written before has left', async () => (await messagesOf(off)).filter(({ message }) => message.state === 'delivered').length === waiting.length, 60)
    const soonNow = async () => (await messagesOf(off)).find(({ message }) => message.id === soon.id).message
    await until('what was meant for a moment waits no more', async () => (await soonNow()).state !== 'waiting', 60)
    const afterwards = await soonNow()
    check('after two hours off what was written leaves, and what was meant for a moment is held', () => assert.deepEqual([afterwards.state, afterwards.code], ['held', 'late']))
    const back = await lead('Back')
    const oneMore = text(back, 'Before the clock went back')
    await send(oneMore)
    await world.setClock(HOUR)
    const leftInTime = await until('a text leaves though its clock went back an hour', async () => (await arrived(back)).length > 0, 30).then(() => true, () => false)
    const afterBack = await arrived(back)
    check('a clock that goes back an hour holds nothing up, and sends nothing twice', () => assert.deepEqual([leftInTime, afterBack.map(one => one.text)], [true, [oneMore.words]]))

    // somebody starts a second one on the same files, by another path
    const refused = await secondStarts(folder, port)
    check('a second Plauder on the same files is refused, by a link and by another mount', () => {
      for (const { code, said } of refused) assert.ok(code === 1 && said.includes('is in use by another Plauder'), `ended with ${code}: ${said.slice(0, 300)}`)
    })
    const health = await fetch(`${world.address}/api/ready`)
    check('the first one goes on', () => assert.equal(health.status, 200))
  }
  finally {
    killing = false
    await world.end()
  }
}

/** What comes of each, by name; the first that fails is told at once, whatever the others still wait for. */
async function all(promises) {
  return Object.fromEntries(await Promise.all(Object.entries(promises).map(async ([name, promise]) => [name, await promise])))
}

/** Starts the application twice more on a folder that is in use: by a link to it, and by a mount of it in another network. */
async function secondStarts(folder, port) {
  const elsewhere = mkdtempSync(join(tmpdir(), 'plauder-second-'))
  symlinkSync(folder, join(elsewhere, 'link'))
  execFileSync('mkdir', [join(elsewhere, 'mount')])
  const env = path => ({ ...process.env, ...secretsFor(folder), NODE_ENV: 'production', HOST: '127.0.0.1', PORT: String(port + 7), PLAUDER_DATA: path, PLAUDER_LOG: 'fatal' })
  const isolated = ['--net', '--mount', ...process.getuid() === 0 ? [] : ['--user', '--map-root-user']]
  const children = [
    spawn(process.execPath, ['.output/server/index.mjs'], { env: env(join(elsewhere, 'link')) }),
    spawn('unshare', [...isolated, 'sh', '-c', 'mount --bind "$1" "$2" && exec "$3" .output/server/index.mjs', 'sh', folder, join(elsewhere, 'mount'), process.execPath], { env: env(join(elsewhere, 'mount')) }),
  ]
  const ended = await Promise.all(children.map(child => new Promise((resolve) => {
    let said = ''
    for (const stream of [child.stdout, child.stderr]) stream.on('data', chunk => said += chunk)
    child.once('exit', code => resolve({ code, said }))
    setTimeout(() => child.kill('SIGKILL'), 20_000).unref()
  })))
  rmSync(elsewhere, { recursive: true, force: true })
  return ended
}
