// 200 texts go out through a carrier held to 20 a second, while the application and the carrier are killed at every named
// place and at random moments. Then each text is counted on its handset and on its timeline.
import assert from 'node:assert/strict'
import { createHash, randomUUID } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { check, killedWorld, pause, randomFrom, sorted, until, zoneByDay } from './world.mjs'

const TEXTS = 200
const PEOPLE = 40
/** Of the file that is brought in meanwhile, and of the companies in it. */
const ROWS = 1_000
const FIRMS = 40
const POINTS = { application: ['effect-done', 'disposed', 'piece-changed', 'piece-imported', 'claimed', 'handing-over', 'answered', 'settled', 'event-stored'], carrier: ['accepted', 'arrived'] }
const PLACES = POINTS.application.length + POINTS.carrier.length
const FAULTS = { lateUpToMs: 400, reportTwice: 0.2, reportLost: 0.1, answerLost: 0.05 }
/** Who is called: nobody else texts with them. */
const CALLED = '+15415550190'
const EFFECTS = ['text', 'stage', 'task']

const rowName = i => `Row ${i} Imported`

/** @param {{ port: number, seed: number, kills: number }} how many random kills there are besides those at named places */
export async function textsAreKilled({ port, seed, kills }) {
  const random = randomFrom(seed)
  const world = await killedWorld({ port, seed, points: POINTS, practice: { PRACTICE_PER_SECOND: '20', PRACTICE_PACE: '{"sent":20,"delivered":60}', PRACTICE_FAULTS: JSON.stringify(FAULTS) } })
  const { folder, markers, deaths, textsTo } = world
  const { ask, insist } = await world.signIn('ada')
  const begunAt = Date.now()

  /** A file is sent and begun; gives its id. */
  async function bringIn() {
    const id = randomUUID()
    const rows = Array.from({ length: ROWS }, (_, i) => [rowName(i), `row${i}@import.example`, `Import firm ${i % FIRMS}`])
    const rules = { matching: ['name', 'mail', 'company'], country: 'US', dayOrders: [null, null, null], duplicates: { number: 'join', mail: 'join', name: 'join' }, ownerId: (await insist('/api/me')).id }
    await insist('/api/imports', { id, module: 'client', fileName: 'kill.csv', headings: ['Name', 'Mail', 'Company'], total: ROWS, rules })
    for (let place = 0; place * 25 < ROWS; place += 20) await insist(`/api/imports/${id}/rows`, { place, rows: rows.slice(place * 25, (place + 20) * 25) }, 'PUT')
    await insist(`/api/imports/${id}/start`, {})
    return id
  }

  /** Every client that the file has made. */
  async function clientsOf() {
    const where = JSON.stringify({ match: 'all', of: [{ field: 'mail', test: 'contains', value: '@import.example' }] })
    const found = []
    for (let page = 1; ; page++) {
      const { rows } = await insist(`/api/records?${new URLSearchParams({ module: 'client', sort: 'name', direction: 'up', words: '', where, page })}`)
      found.push(...rows)
      if (rows.length === 0) return found
    }
  }

  /** A lead is called and lost to a wire that is cut, and then a key is pressed whose effects are a text, a stage and a task. */
  async function callAndDispose() {
    const recordId = randomUUID()
    await insist('/api/records', { id: recordId, module: 'lead', firstName: 'Called', zone: zoneByDay(), phones: [{ label: 'mobile', typed: CALLED }] })
    const { phones } = await insist(`/api/records/${recordId}`)
    const id = randomUUID()
    await insist('/api/calls', { id, phoneId: phones[0].id, nightAllowed: true })
    const dispositions = await insist(`/api/calls/${id}/dispositions`)
    const chosen = dispositions.find(({ name }) => name === 'Wants a trial week')
    assert.deepEqual(chosen.effects.map(({ effect }) => effect.kind), EFFECTS)
    const body = { dispositionId: chosen.id, choices: [{ position: 0, leftOut: false, text: `The call of ${seed}, noted.`, answers: {}, day: null, time: null }] }
    for (;;) {
      // ended by us, or by the exchange when it dies; a press that comes before that is refused
      await ask(`/api/calls/${id}/order`, { order: 'hang-up' }).catch(() => {})
      const answer = await ask(`/api/calls/${id}/disposition`, body).catch(error => error)
      if (answer instanceof Response) return { recordId, ...await answer.json() }
      if (answer instanceof assert.AssertionError && !answer.message.includes('still-on')) throw answer
      await pause(200)
    }
  }

  try {
    await until('prices are known', async () => (await (await ask('/api/lines')).json()).every(line => line.price), 30)
    const line = (await insist('/api/lines')).find(one => one.name === 'Portland line')

    const people = []
    for (let i = 0; i < PEOPLE; i++) {
      const id = randomUUID()
      const number = `+1${['541', '509'][i % 2]}55501${String(i).padStart(2, '0')}`
      await insist('/api/records', { id, module: 'lead', firstName: `Person ${i}`, phones: [{ label: 'mobile', typed: number }] })
      people.push({ id, number, phoneId: (await insist(`/api/records/${id}`)).phones[0].id })
    }

    // somebody is called, and one key does three things for them
    const disposed = await callAndDispose()

    // every lead is given a tag meanwhile, piece by piece
    const leads = { module: 'lead', sort: 'name', direction: 'up', words: '', where: '' }
    const leadsWith = async where => (await insist(`/api/records/count?${new URLSearchParams({ ...leads, where })}`)).total
    const allLeads = await leadsWith('')
    const bulk = { id: randomUUID(), selection: { list: leads, ids: null }, change: { kind: 'add-tag', tag: 'everybody' } }
    await insist('/api/bulk-changes', bulk)

    // and a file of clients is brought in
    const bringing = bringIn()

    // one that reads as text says whose it is; some have two parts
    const texts = Array.from({ length: TEXTS }, (_, i) => ({ id: randomUUID(), to: people[i % PEOPLE], words: `Text ${i} of ${seed}. ${'x'.repeat(i % 5 === 0 ? 180 : 10)}` }))
    const killing = (async () => {
      // one that strikes a process at the very moment when it falls by itself does not count
      for (let i = 0; i < kills || deaths() < kills + PLACES; i++) {
        await world.kill(random() < 0.4 ? 'carrier' : 'application', 400 + random() * 1_600)
      }
    })()
    const queue = [...texts]
    await Promise.all(Array.from({ length: 4 }, async () => {
      for (let text = queue.shift(); text; text = queue.shift()) {
        await insist('/api/texts', { id: text.id, lineId: line.id, phoneId: text.to.phoneId, text: text.words, nightAllowed: true })
      }
    }))
    await killing

    const importId = await bringing
    const timelines = () => Promise.all(people.map(({ id }) => insist(`/api/records/${id}/timeline`)))
    const sent = pages => pages.flatMap(page => page.entries).filter(entry => entry.kind === 'text-out')
    // a report may overtake the answer, and then the cost is still to be asked
    await until('every text is delivered, and its cost is known', async () => {
      const entries = sent(await timelines())
      return entries.length >= TEXTS && entries.every(entry => entry.message.state === 'delivered' && entry.message.costMicros !== null)
    }, 150)

    const importNow = () => insist(`/api/imports/${importId}`)
    await until('every row is brought in', async () => (await importNow()).state === 'done', 60)
    const imported = await importNow()
    const clients = await clientsOf()

    const bulkNow = async () => (await insist('/api/bulk-changes')).find(({ id }) => id === bulk.id)
    await until('every lead is changed', async () => (await bulkNow()).state === 'done', 60)
    const tagged = await leadsWith(JSON.stringify({ match: 'all', of: [{ field: 'tags', test: 'one-of', value: ['everybody'] }] }))
    const { changed } = await bulkNow()

    await until('the text that the key set off has arrived', async () => (await textsTo(CALLED)).length > 0, 60)
    const calledTimeline = (await insist(`/api/records/${disposed.recordId}/timeline`)).entries
    const calledRecord = await insist(`/api/records/${disposed.recordId}`)
    const calledTexts = await textsTo(CALLED)

    const admin = await world.signIn('rafe')
    await until('nothing is held for a text any more', async () => (await admin.insist('/api/set-up/money')).accounts[0].heldMicros === 0, 60)
    const [account] = (await admin.insist('/api/set-up/money')).accounts
    const ledger = []
    for (let next = ''; next !== null;) {
      const page = await admin.insist(`/api/set-up/money/ledger${next && `?after=${next}`}`)
      ledger.push(...page.entries)
      next = page.next
    }

    const pages = await timelines()
    const entries = sent(pages)
    const received = []
    for (const { number } of people) {
      for (const text of await textsTo(number)) received.push({ number, ...text })
    }
    const allAccepted = readFileSync(join(folder, 'practice', 'carrier', 'journal.jsonl'), 'utf8').trim().split('\n').map(row => JSON.parse(row)).filter(entry => entry.do === 'accept')
    const accepted = allAccepted.filter(({ text }) => text.to !== CALLED)
    const hash = words => createHash('sha256').update(words).digest('hex')

    check('every named place was hit', () => {
      for (const kind of ['application', 'carrier']) for (const point of POINTS[kind]) assert.ok(existsSync(markers[kind](point)), `${kind} was never killed at ${point}`)
    })
    check('a change of many is whole, and on each timeline once', () => {
      assert.equal(tagged, allLeads)
      assert.equal(changed, allLeads)
      for (const page of pages) assert.equal(page.entries.filter(entry => entry.data.bulkId === bulk.id).length, 1)
    })
    check('a file is brought in whole, each row once, and nothing of it twice', () => {
      assert.deepEqual([imported.done, imported.made, imported.refused], [ROWS, ROWS, 0])
      assert.deepEqual(sorted(clients.map(({ name }) => name)), sorted(Array.from({ length: ROWS }, (_, i) => rowName(i))))
      assert.equal(new Set(clients.map(({ company }) => company.id)).size, FIRMS)
    })
    check('what a key sets off happened once, each part of it', () => {
      assert.deepEqual(disposed.effects.map(({ state }) => state), EFFECTS.map(() => 'done'))
      const of = kind => calledTimeline.filter(entry => entry.kind === kind).length
      assert.deepEqual([of('call-out'), of('text-out'), of('task-made'), calledRecord.tasks.length, calledRecord.stage.name], [1, 1, 1, 1, 'Trial'])
      assert.deepEqual(calledTexts.map(({ text }) => text), [`The call of ${seed}, noted.`])
      assert.equal(allAccepted.filter(({ text }) => text.to === CALLED).length, 1)
    })
    check('both were killed often', () => assert.ok(deaths() >= kills + PLACES))
    check('the carrier took each text once, under its own key', () => assert.deepEqual(sorted(accepted.map(entry => entry.text.key)), sorted(texts.map(text => text.id))))
    check('each text is on its handset once, word for word', () => assert.deepEqual(sorted(received.map(text => `${text.number} ${hash(text.text)}`)), sorted(texts.map(text => `${text.to.number} ${hash(text.words)}`))))
    check('each text is on its timeline once, delivered', () => assert.deepEqual(sorted(entries.map(entry => `${entry.message.id} ${entry.words}`)), sorted(texts.map(text => `${text.id} ${text.words}`))))
    check('texts to one person arrived in their order', () => {
      for (const { number } of people) {
        const order = received.filter(text => text.number === number).map(text => Number(/^Text (\d+)/.exec(text.text)[1]))
        const queued = entries.filter(entry => entry.message.remote === number).sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1)).map(entry => Number(/^Text (\d+)/.exec(entry.words)[1]))
        assert.deepEqual(order, queued)
      }
    })
    check('the ledger has each text once, at the carrier\'s price, and its sum is the balance', () => {
      const since = ledger.filter(({ at, kind }) => kind === 'text' && at >= begunAt)
      assert.equal(since.length, allAccepted.length)
      const total = of => of.reduce((sum, micros) => sum + micros, 0)
      assert.equal(total(since.map(({ micros }) => -micros)), total(allAccepted.map(({ text }) => text.price.micros)))
      assert.equal(total(ledger.map(({ micros }) => micros)), account.balanceMicros)
    })
    check('parts and cost are the carrier\'s', () => {
      for (const { text } of accepted) {
        const entry = entries.find(one => one.message.id === text.key)
        assert.deepEqual([entry.message.parts, entry.message.costMicros], [text.parts, text.price.micros])
      }
    })
  }
  finally {
    await world.end()
  }
}
