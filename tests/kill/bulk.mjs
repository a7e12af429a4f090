// A bulk text is checked and sent while the application and the carrier are killed, with pauses, stops and goings-on in between.
// Then each person's handset is looked at, and the counts on the bulk text's page.
import assert from 'node:assert/strict'
import { randomUUID } from 'node:crypto'
import { existsSync } from 'node:fs'
import { check, killedWorld, pause, randomFrom, sorted, until, zoneByDay } from './world.mjs'

const POINTS = { application: ['bulk-checked', 'bulk-sent'], carrier: ['accepted'] }
const PLACES = POINTS.application.length + POINTS.carrier.length
const FAULTS = { lateUpToMs: 200, reportTwice: 0.1, answerLost: 0.03 }
const WORDS = 'The workshop is open on Saturday. Ada, Pannier & Post'

/** @param {{ port: number, seed: number, kills: number, people?: number }} how many random kills there are besides those at named places */
export async function bulkIsKilled({ port, seed, kills, people: count = 150 }) {
  const random = randomFrom(seed)
  const world = await killedWorld({ port, seed, points: POINTS, practice: { PRACTICE_PER_SECOND: '40', PRACTICE_PACE: '{"sent":20,"delivered":60}', PRACTICE_FAULTS: JSON.stringify(FAULTS) } })
  const { markers, deaths, textsTo } = world
  const { insist, ask } = await world.signIn('ada')
  const admin = await world.signIn('rafe')

  try {
    await until('prices are known', async () => (await insist('/api/lines')).every(line => line.price), 30)
    const lines = await admin.insist('/api/set-up/lines')
    const portland = lines.find(({ name }) => name === 'Portland line')
    const lineId = portland.id
    await admin.insist(`/api/set-up/lines/${lineId}`, { ...portland, textsAMinute: 480 }, 'PUT')

    const people = Array.from({ length: count }, (_, i) => ({ id: randomUUID(), number: `+1${['541', '509', '425', '702', '775', '208', '406', '307', '801', '435'][Math.floor(i / 100)]}55501${String(i % 100).padStart(2, '0')}` }))
    const toMake = [...people]
    await Promise.all(Array.from({ length: 4 }, async () => {
      for (let one = toMake.shift(); one; one = toMake.shift())
        await insist('/api/records', { id: one.id, module: 'lead', firstName: 'Killed', zone: zoneByDay(), phones: [{ label: 'mobile', typed: one.number }] })
    }))

    const id = randomUUID()
    const where = JSON.stringify({ match: 'all', of: [{ field: 'name', test: 'contains', value: 'Killed' }] })
    await insist('/api/bulk-texts', { id, name: 'Saturday', selection: { list: { module: 'lead', sort: 'made', direction: 'up', words: '', where } } })
    await insist(`/api/bulk-texts/${id}`, { name: 'Saturday', body: WORDS, lineId }, 'PUT')
    const now = () => insist(`/api/bulk-texts/${id}`)
    /** Pressed as somebody would who sees nothing happen: until it is so. */
    const turn = async (step, states) => {
      for (;;) {
        await ask(`/api/bulk-texts/${id}/turn`, { step }).catch(() => {})
        const { state } = await now()
        if (states.includes(state)) return state
        await pause(150)
      }
    }

    const killing = (async () => {
      for (let i = 0; i < kills || deaths() < kills + PLACES; i++) await world.kill(random() < 0.3 ? 'carrier' : 'application', 500 + random() * 1_500)
    })()
    await ask(`/api/bulk-texts/${id}/check`, {}).catch(() => {})
    await until('everybody is checked', async () => {
      const { state } = await now()
      if (state === 'draft') await ask(`/api/bulk-texts/${id}/check`, {}).catch(() => {})
      return state === 'checked'
    }, 120)
    const checked = await now()
    await until('it is started', async () => {
      await ask(`/api/bulk-texts/${id}/start`, { days: 1 }).catch(() => {})
      return (await now()).state === 'running'
    }, 60)

    const stoodStill = []
    let over = false
    const pressing = (async () => {
      while (!over) {
        await pause(1_000 + random() * 2_000)
        if (over || await turn(random() < 0.5 ? 'pause' : 'stop', ['paused', 'stopped', 'done']) === 'done') break
        // what was handed over before may still be taken; after that nothing is
        await pause(1_500)
        const accepted = async () => (await now()).counts.texted
        const before = await accepted()
        await pause(700)
        stoodStill.push([before, await accepted()])
        await turn('go-on', ['running', 'done'])
      }
    })()
    await killing
    over = true
    await pressing
    await turn('go-on', ['running', 'done'])
    await until('all have had their turn', async () => (await now()).state === 'done', 180)
    await until('all is delivered', async () => (await now()).states.delivered === count, 120)
    const end = await now()
    const handsets = []
    for (const { number } of people) handsets.push({ number, texts: await textsTo(number) })

    check('every named place was hit', () => {
      for (const kind of ['application', 'carrier']) for (const point of POINTS[kind]) assert.ok(existsSync(markers[kind](point)), `${kind} was never killed at ${point}`)
    })
    check('both were killed often', () => assert.ok(deaths() >= kills + PLACES))
    check('each was checked once', () => assert.deepEqual([checked.checked, checked.counts.ready, checked.people], [count, count, count]))
    check('each has it on their handset once, word for word', () =>
      assert.deepEqual(sorted(handsets.map(({ number, texts }) => `${number} ${texts.map(({ text }) => text).join(' | ')}`)), sorted(people.map(({ number }) => `${number} ${WORDS}`))))
    check('nothing began while it was paused or stopped', () => {
      for (const [before, after] of stoodStill) assert.equal(after, before)
    })
    check('the counts on its page are right', () => assert.deepEqual([end.counts.texted, end.counts.ready, end.counts.refused, end.states.delivered], [count, 0, 0, count]))
  }
  finally {
    await world.end()
  }
}
