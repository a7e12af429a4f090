import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Desk, wrongWith, type Handed } from '~~/practice/carrier/desk'
import type { PapersEvent, World } from '~~/practice/carrier/world'

const NOON = Date.parse('2026-11-25T12:00:00Z')
const DAY = 86_400_000
const GOOD: Handed = {
  firm: 'Pannier & Post Ltd', brand: 'Pannier & Post', files: 0,
  agree: 'A box on the form for a trial week, empty at first: “Text me; STOP ends it.”',
  samples: ['Hi, Ada from Pannier & Post. When may I ring you?'],
}
const folders: string[] = []
afterAll(() => folders.forEach(folder => rmSync(folder, { recursive: true, force: true })))

function openDesk(folder = mkdtempSync(join(tmpdir(), 'plauder-desk-'))) {
  folders.push(folder)
  const clock = { now: NOON }
  const told: PapersEvent[] = []
  const world = { events: told } as unknown as World
  const desk = new Desk(folder, world, async event => void told.push(event), () => clock.now)
  return { desk, clock, told, folder }
}

describe('the desk of the practice carrier', () => {
  it('looks papers through for days, once however often they come, and tells once', async () => {
    const { desk, clock, told } = openDesk()
    const first = await desk.take('US', GOOD)
    expect(await desk.take('US', { ...GOOD, samples: [] })).toEqual(first)
    expect(await desk.take('GB', GOOD)).toBeNull()
    const close = desk.open()
    expect(told).toEqual([])
    close()
    clock.now = first!.until
    const again = desk.open()
    while (told.length === 0) await new Promise(resolve => setTimeout(resolve, 5))
    again()
    expect(told).toMatchObject([{ type: 'papers.accepted', data: { country: 'US', ref: first!.ref } }])
    expect(first!.until - NOON).toBe(7 * DAY)
  })

  it('sends back what is not whole, and looks again at what comes then; all of it outlives a restart', async () => {
    const { desk, told, folder } = openDesk()
    await desk.take('CA', { ...GOOD, agree: 'They agree.' })
    await desk.hasten('CA')
    expect(told.at(-1)).toMatchObject({ type: 'papers.asked-back', data: { words: expect.stringContaining('How do people agree') } })
    await desk.hasten('CA')
    expect(told).toHaveLength(1)
    const next = openDesk(folder)
    expect(next.desk.all()).toMatchObject([{ country: 'CA', state: 'asked-back' }])
    await next.desk.take('CA', GOOD)
    await next.desk.hasten('CA')
    expect(next.told).toMatchObject([{ id: 'ev-papers-CA-2', type: 'papers.accepted' }])
  })

  it.each([
    [{ agree: 'They say yes.' }, /How do people agree/],
    [{ agree: 'A box on the form for a trial week, empty at first; that is all.' }, /how people end it/],
    [{ samples: ['Hi, when may I ring you?'] }, /No sample says who writes/],
    [{}, null],
  ])('asks what is usually asked: %j', (wrong, said) => {
    const found = wrongWith({ ...GOOD, ...wrong })
    if (said) expect(found).toMatch(said)
    else expect(found).toBeNull()
  })
})
