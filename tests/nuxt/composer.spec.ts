import { asked, away, before, browserKeeps, refuse, settled } from '../support/app'
import { showRef } from '~~/core/message/ref'
import { useComposer, type Target } from '~/composables/composer'
import { useDrafts } from '~/stores/drafts'

const KEY = 'record r1'
const TO: Target = { lineId: 'l1', phoneId: 'p1', conversationId: null }
const sent = (leavesInMs = 5_000) => ({ id: 't1', activityId: 'a1', leavesAt: Date.now() + leavesInMs })
const server = { 'PUT /api/drafts': () => null, 'POST /api/texts': () => sent() }
const sends = () =>
  asked.filter(({ path, method }) => method === 'POST' && path === '/api/texts').map(({ body }) => body as Record<string, unknown>)
const composer = (to: Target | null = TO) => useComposer(KEY, () => to, () => [])
beforeEach(() => browserKeeps.removeItem('plauder-drafts-nobody'))

describe('writing a text', () => {
  it('is measured as it is written, and has the reference that it will leave with', () => {
    before(server)
    const { text, measure, reference, empty } = composer()
    expect(empty.value).toBe(true)
    text.value = 'Hi Iris €'
    expect([measure.value.units, measure.value.parts, empty.value]).toEqual([10, 1, false])
    expect(reference.value).toBe(useDrafts().of(KEY).ref)
  })

  it('leaves with its template, its pictures and its reference, and is no draft any more', async () => {
    before(server)
    const { text, pictureIds, comesFrom, send, lastSent, secondsLeft, reference } = composer()
    text.value = 'Hi Iris.'
    comesFrom('template1', 3)
    pictureIds.value = ['picture1']
    const own = reference.value
    await send()
    expect(sends()).toEqual([
      expect.objectContaining({
        ...TO,
        text: 'Hi Iris.',
        templateId: 'template1',
        templateVersion: 3,
        pictureIds: ['picture1'],
        ref: own,
        nightAllowed: false,
        later: null,
      }),
    ])
    expect([text.value, pictureIds.value, lastSent.value?.activityId, secondsLeft.value]).toEqual(['', [], 'a1', 5])
    expect(reference.value).not.toBe(own)
  })

  it('goes nowhere empty, nor without a number', async () => {
    before(server)
    const { text, send } = composer()
    text.value = '  '
    expect(await send()).toBeNull()
    const nobody = composer(null)
    nobody.text.value = 'Hi'
    expect(await nobody.send()).toBeNull()
    expect(sends()).toEqual([])
  })

  it('is tried again under the same id when the answer was lost, and under another once the words are others', async () => {
    before({ ...server, 'POST /api/texts': away })
    const { text, send, problem } = composer()
    text.value = 'Hi Iris'
    await send()
    expect([problem.value?.type, text.value]).toEqual(['offline', 'Hi Iris'])
    await send()
    text.value = 'Hi Iris!'
    expect(problem.value).toBeNull()
    await send()
    const [first, second, third] = sends().map(({ id }) => id)
    expect([second === first, third === first]).toEqual([true, false])
  })

  it('leaves once, however often it is sent at the same time', async () => {
    before(server)
    const { text, send } = composer()
    text.value = 'Hi Iris'
    await Promise.all([send(), send(), send()])
    expect(sends()).toHaveLength(1)
  })

  it('asks at night, and keeps what was written', async () => {
    before({
      ...server,
      'POST /api/texts': ({ body }) =>
        (body as { nightAllowed: boolean }).nightAllowed
          ? sent()
          : refuse(409, 'night', 'It is night there.', { zones: [], reason: 'night', notBefore: 5 }),
    })
    const { text, send, night, problem } = composer()
    text.value = 'Hi Iris'
    expect(await send()).toBeNull()
    expect([night.value, problem.value, text.value]).toEqual([
      expect.objectContaining({ detail: 'It is night there.', reason: 'night', notBefore: 5 }),
      null,
      'Hi Iris',
    ])
    expect(await send({ nightAllowed: true })).toMatchObject({ id: 't1' })
    expect(night.value).toBeNull()
  })

  it('asks where there is a doubt, and leaves once somebody has said so', async () => {
    before({
      ...server,
      'POST /api/texts': ({ body }) =>
        (body as { anyway: string[] }).anyway.includes('wish') ? sent() : refuse(409, 'wish', 'It may be a wish to get no texts.'),
    })
    const { text, send, doubt } = composer()
    text.value = 'Hi Iris'
    expect(await send()).toBeNull()
    expect([doubt.value, text.value]).toEqual([{ doubt: 'wish', detail: 'It may be a wish to get no texts.' }, 'Hi Iris'])
    text.value = 'Hi Iris!'
    expect(doubt.value).toBeNull()
    expect(await send({ anyway: ['wish'] })).toMatchObject({ id: 't1' })
  })

  it('has another reference, in its words too, where another text has it already', async () => {
    before({ ...server, 'POST /api/texts': () => refuse(409, 'ref-taken', 'Another text has this ref. Send again.') })
    const { text, send, reference, problem } = composer()
    const taken = reference.value
    text.value = `Ref ${showRef(taken)}, Ada`
    await send()
    expect(reference.value).not.toBe(taken)
    expect([text.value, problem.value?.type]).toEqual([`Ref ${showRef(reference.value)}, Ada`, 'ref-taken'])
  })

  it('that leaves later has nothing to count down', async () => {
    before(server)
    const { text, send, lastSent } = composer()
    text.value = 'Hi Iris'
    await send({ later: { wallTime: '2026-11-27T09:00', zone: 'Pacific/Honolulu' } })
    expect([sends()[0]!.later, lastSent.value]).toEqual([{ wallTime: '2026-11-27T09:00', zone: 'Pacific/Honolulu' }, null])
  })
})

describe('taking a text back', () => {
  it('brings its words and pictures back', async () => {
    before({ ...server, 'POST /api/texts/t1/take-back': () => ({ text: 'Hi Iris', pictureIds: ['picture1'] }) })
    const { text, pictureIds, send, takeBack, lastSent } = composer()
    text.value = 'Hi Iris'
    await send()
    expect(await takeBack()).toBe(true)
    expect([text.value, pictureIds.value, lastSent.value]).toEqual(['Hi Iris', ['picture1'], null])
    expect(await takeBack()).toBe(false)
  })

  it('brings its template back, and names in its words the reference that it will have now', async () => {
    const old = '7K2M-9QXR'
    before({
      ...server,
      'POST /api/texts/t1/take-back': () => ({ text: `Hi Iris, ${old}`, pictureIds: [], templateId: 'template1', templateVersion: 3, ref: old.replace('-', '') }),
    })
    const { text, send, takeBack, reference } = composer()
    text.value = 'Hi Iris'
    await send()
    await takeBack()
    await send()
    expect(sends()[1]).toMatchObject({ templateId: 'template1', templateVersion: 3, text: `Hi Iris, ${showRef(String(sends()[1]!.ref))}` })
    expect([text.value, reference.value === old]).toEqual(['', false])
  })

  it('leaves what is written meanwhile alone', async () => {
    before({ ...server, 'POST /api/texts/t1/take-back': () => ({ text: 'Hi Iris', pictureIds: [] }) })
    const { text, send, takeBack } = composer()
    text.value = 'Hi Iris'
    await send()
    text.value = 'And then'
    await takeBack()
    expect(text.value).toBe('And then')
  })

  it('says so where it has left', async () => {
    before({ ...server, 'POST /api/texts/t1/take-back': () => refuse(409, 'left', 'It has left already.') })
    const { text, send, takeBack, problem } = composer()
    text.value = 'Hi Iris'
    await send()
    expect([await takeBack(), problem.value?.message]).toEqual([false, 'It has left already.'])
  })

  it('is offered for as long as it has not left', async () => {
    before({ ...server, 'POST /api/texts': () => sent(250) })
    const { text, send, lastSent, secondsLeft } = composer()
    text.value = 'Hi Iris'
    await send()
    expect([lastSent.value?.id, secondsLeft.value]).toEqual(['t1', 1])
    await new Promise(resolve => setTimeout(resolve, 600))
    await settled()
    expect([lastSent.value, secondsLeft.value]).toEqual([null, 0])
  })
})
