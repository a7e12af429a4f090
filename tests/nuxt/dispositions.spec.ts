import { asked, before, held, refuse } from '../support/app'
import type { CallDetail, DispositionPreview } from '~~/shared/calling'
import type { EffectPreview } from '~~/shared/effects'
import { useDispositions } from '~/composables/dispositions'

const effect = (position: number, values: Partial<EffectPreview>): EffectPreview => ({
  position,
  effect: { kind: 'no-calls' },
  words: '',
  text: null,
  due: null,
  field: null,
  problem: null,
  ...values,
})
const fillIn = { key: 'agreed', label: 'What was agreed', kind: 'text' as const, example: '', options: [] }
const KEYS = [
  { id: 'plain', name: 'Not interested', letter: 'n', colour: 'plain', family: 'reached', effects: [] },
  {
    id: 'asks',
    name: 'Wants an offer',
    letter: 'o',
    colour: 'accent',
    family: 'reached',
    effects: [
      effect(0, {
        effect: { kind: 'text', templateId: 't' },
        text: {
          name: 'Offer',
          text: null,
          missing: [],
          fillIns: [fillIn],
          line: 'Portland line',
          to: '+18085550142',
        } as unknown as EffectPreview['text'],
      }),
      effect(1, { effect: { kind: 'call-back', days: null, time: '10:00' } }),
      effect(2, { effect: { kind: 'field', field: 'bikes', value: null } }),
    ],
  },
] as DispositionPreview[]
const DONE = { name: 'Not interested', effects: [] }
const routes = {
  'GET /api/calls/c1/dispositions': () => KEYS,
  'POST /api/calls/c1/disposition': () => DONE,
  'POST /api/calls/c1/disposition/take-back': () => DONE,
}

async function keys(more: object = {}, call: Partial<CallDetail> = {}) {
  before({ ...routes, ...more })
  let presses = 0
  const shown = useDispositions(() => ({ id: 'c1', disposition: null, ...call } as CallDetail), () => presses++)
  await shown.load()
  return { ...shown, presses: () => presses }
}
const presses = () => asked.filter(({ method, path }) => method === 'POST' && path === '/api/calls/c1/disposition')

describe('the keys of a call', () => {
  it('do at once what asks for nothing', async () => {
    const shown = await keys()
    expect(await shown.press('plain')).toBe(true)
    expect([shown.done.value, shown.presses(), presses()[0]!.body]).toEqual([DONE, 1, { dispositionId: 'plain', choices: [] }])
  })

  it('can be pressed while what they do is read anew', async () => {
    const shown = await keys()
    const slow = held<typeof KEYS>()
    before({ ...routes, 'GET /api/calls/c1/dispositions': () => slow.answer })
    const reading = shown.load()
    expect(await shown.press('plain')).toBe(true)
    slow.give(KEYS)
    await reading
    expect([shown.done.value, shown.busy.value]).toEqual([DONE, false])
  })

  it('wait for everything that is still asked, and are pressed once all of it is said or left out', async () => {
    const shown = await keys()
    expect(await shown.press('asks')).toBe(false)
    expect(shown.open.value.map(({ position }) => position)).toEqual([0, 1, 2])
    shown.say(0, { answers: { agreed: 'Friday' } })
    shown.say(1, { leftOut: true })
    expect(await shown.press('asks')).toBe(false)
    expect(presses()).toEqual([])
    shown.say(2, { answers: { value: '4' } })
    expect(await shown.press('asks')).toBe(true)
    expect(presses()[0]!.body).toMatchObject({
      choices: [
        { position: 0, answers: { agreed: 'Friday' } },
        { position: 1, leftOut: true },
        { position: 2, answers: { value: '4' } },
      ],
    })
  })

  it('need no answer where the text was written by hand, or the day is said', async () => {
    const shown = await keys()
    shown.choose('asks')
    shown.say(0, { text: 'By hand.' })
    shown.say(1, { day: '2026-12-03' })
    expect(shown.open.value.map(({ position }) => position)).toEqual([2])
  })

  it('forget what was said of one when another is looked at, and keep it when the same is', async () => {
    const shown = await keys()
    shown.choose('asks')
    shown.say(1, { leftOut: true })
    shown.choose('asks')
    expect(shown.choices.value[1]!.leftOut).toBe(true)
    shown.choose('plain')
    expect(shown.choices.value).toEqual({})
  })

  it('say what stands in the way, and can be pressed again', async () => {
    let refused = false
    const shown = await keys({ 'POST /api/calls/c1/disposition': () => {
      if (refused) return DONE
      refused = true
      return refuse(422, 'bad-input', 'Look.', { fields: { 'choices.0.day': 'Say on which day.' } })
    } })
    expect(await shown.press('plain')).toBe(false)
    expect([shown.problem.value, shown.busy.value, shown.presses()]).toEqual(['Say on which day.', false, 0])
    expect(await shown.press('plain')).toBe(true)
  })

  it('press once however quickly they are pressed', async () => {
    const shown = await keys()
    await Promise.all([shown.press('plain'), shown.press('plain'), shown.press('plain')])
    expect(presses()).toHaveLength(1)
  })

  it('show what was done already, and say what stays when it is taken back', async () => {
    const stays = { name: 'Visit', effects: [{ position: 0, words: 'Text “Hi”', state: 'stays', reason: 'It has left.' }] }
    const shown = await keys(
      { 'GET /api/calls/c1/disposition': () => stays, 'POST /api/calls/c1/disposition/take-back': () => stays },
      { disposition: { name: 'Visit', at: 0 } },
    )
    expect(shown.done.value).toEqual(stays)
    await shown.takeBack()
    expect([shown.done.value, shown.problem.value]).toEqual([null, 'Taken back, but this stays: Text “Hi”. It has left.'])
  })

  it('say where they could not be loaded', async () => {
    const shown = await keys({ 'GET /api/calls/c1/dispositions': () => refuse(404, 'not-found', 'There is no such call.') })
    expect([shown.all.value, shown.problem.value]).toEqual([null, 'There is no such call.'])
  })
})
