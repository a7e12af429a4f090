import { asked, away, before, held, inPage, refuse, settled, tell } from '../support/app'
import type { TimelineEntry, TimelinePage } from '~~/shared/timeline'
import { useTimeline } from '~/composables/timeline'

const PATH = 'GET /api/records/r1/timeline'
const entry = (at: number, id = `e${at}`, words = ''): TimelineEntry => ({ id, at, words }) as unknown as TimelineEntry
const page = (entries: TimelineEntry[], more = false, newer = false): TimelinePage => ({ entries, more, newer })
const shown = (timeline: ReturnType<typeof useTimeline>) => timeline.entries.value.map(({ id }) => id)
const open = (...of: Parameters<typeof useTimeline>) => inPage(() => useTimeline(...of))
const queries = () => asked.map(({ query }) => query)

describe('a timeline on screen', () => {
  it('begins with its newest page, or with one that is on its way already', async () => {
    before({ [PATH]: () => page([entry(3), entry(2)], true) })
    const timeline = open('r1')
    expect(timeline.state.value).toBe('loading')
    await settled()
    expect([shown(timeline), timeline.more.value, timeline.state.value]).toEqual([['e3', 'e2'], true, 'ready'])
    before({})
    const ahead = open('r1', undefined, Promise.resolve(page([entry(9)])))
    await settled()
    expect([shown(ahead), asked]).toEqual([['e9'], []])
  })

  it('begins around an entry that somebody has come for, whatever is on its way', async () => {
    before({ [PATH]: () => page([entry(5), entry(4)], true, true) })
    const timeline = open('r1', 'e4', Promise.resolve(page([entry(9)])))
    await settled()
    expect([queries(), shown(timeline), timeline.newer.value]).toEqual([[{ around: 'e4' }], ['e5', 'e4'], true])
  })

  it('goes on in both directions, each entry once', async () => {
    before({ [PATH]: ({ query }) => {
      const { beforeAt, afterAt } = query as { beforeAt?: number, afterAt?: number }
      return beforeAt ? page([entry(4), entry(3)]) : afterAt ? page([entry(7), entry(6)]) : page([entry(5), entry(4)], true, true)
    } })
    const timeline = open('r1', 'e5')
    await settled()
    await timeline.loadOlder()
    await timeline.loadNewer()
    expect([shown(timeline), timeline.more.value, timeline.newer.value]).toEqual([['e7', 'e6', 'e5', 'e4', 'e3'], false, false])
    expect(queries().slice(1)).toEqual([{ beforeAt: 4, beforeId: 'e4' }, { afterAt: 5, afterId: 'e5' }])
    await timeline.loadOlder()
    await timeline.loadNewer()
    expect(asked).toHaveLength(3)
  })

  it('takes an entry that comes along with its notice, and fetches nothing', async () => {
    before({ [PATH]: () => page([entry(3), entry(2)]) })
    const timeline = open('r1')
    await settled()
    tell({ kind: 'entry', recordId: 'r1', activityId: 'e9', entry: entry(9) })
    tell({ kind: 'entry', recordId: 'r1', activityId: 'e2', entry: entry(2, 'e2', 'delivered') })
    tell({ kind: 'entry', recordId: 'r2', activityId: 'e7', entry: entry(7) })
    await settled()
    expect([shown(timeline), timeline.entries.value.at(-1)!.words, asked.length]).toEqual([['e9', 'e3', 'e2'], 'delivered', 1])
  })

  it('fetches what has changed while a page was on its way, which may bring an older state of it', async () => {
    const older = held<TimelinePage>()
    const answers = [() => older.answer, () => page([entry(2, 'e2', 'delivered')])]
    before({ [PATH]: () => answers.shift()!() })
    const timeline = open('r1')
    tell({ kind: 'entry', recordId: 'r1', activityId: 'e2', entry: entry(2, 'e2', 'delivered') })
    older.give(page([entry(3), entry(2, 'e2', 'waiting')]))
    await settled()
    expect([timeline.entries.value.map(({ words }) => words), queries()]).toEqual([['', 'delivered'], [{}, { only: ['e2'] }]])
  })

  it('fetches it once more while a fetch is under way, which may bring an older one', async () => {
    const older = held<TimelinePage>()
    const answers = [() => page([entry(3)]), () => older.answer, () => page([entry(2, 'e2', 'delivered')])]
    before({ [PATH]: () => answers.shift()!() })
    const timeline = open('r1')
    await settled()
    tell({ kind: 'entry', recordId: 'r1', activityId: 'e2' })
    tell({ kind: 'entry', recordId: 'r1', activityId: 'e2', entry: entry(2, 'e2', 'delivered') })
    older.give(page([entry(2, 'e2', 'waiting')]))
    await settled()
    expect(timeline.entries.value.map(({ words }) => words)).toEqual(['', 'delivered'])
  })

  it('shows what comes live in its place, and changed entries anew', async () => {
    const live: Record<string, TimelineEntry> = { e9: entry(9), e2: entry(2, 'e2', 'delivered') }
    before({ [PATH]: ({ query }) => {
      const { only } = query as { only?: string[] }
      return page(only ? only.map(id => live[id]!) : [entry(3), entry(2)])
    } })
    const timeline = open('r1')
    await settled()
    tell({ kind: 'entry', recordId: 'r1', activityId: 'e9' })
    tell({ kind: 'entry', recordId: 'r1', activityId: 'e2' })
    tell({ kind: 'entry', recordId: 'r2', activityId: 'e7' })
    await settled()
    expect(shown(timeline)).toEqual(['e9', 'e3', 'e2'])
    expect(timeline.entries.value[2]).toMatchObject({ words: 'delivered' })
  })

  it('asks for what comes while it asks with the next question, all of it at once', async () => {
    const slow = held<TimelinePage>()
    let first = true
    before({ [PATH]: ({ query }) => {
      const { only } = query as { only?: string[] }
      if (!only) return page([])
      if (!first) return page(only.map(id => entry(Number(id.slice(1)))))
      first = false
      return slow.answer
    } })
    const timeline = open('r1')
    await settled()
    for (const id of ['e1', 'e2', 'e3', 'e2']) void timeline.refresh(id)
    slow.give(page([entry(1)]))
    await settled()
    expect(queries().slice(1)).toEqual([{ only: ['e1'] }, { only: ['e2', 'e3'] }])
    expect(shown(timeline)).toEqual(['e3', 'e2', 'e1'])
  })

  it('in its middle shows nothing new beside what it is not next to', async () => {
    before({
      [PATH]: ({ query }) =>
        (query as { only?: string[] }).only ? page([entry(9), entry(4, 'e4', 'read')]) : page([entry(5), entry(4)], true, true),
    })
    const timeline = open('r1', 'e4')
    await settled()
    await timeline.refresh('e9')
    expect([shown(timeline), timeline.entries.value[1]]).toEqual([['e5', 'e4'], expect.objectContaining({ words: 'read' })])
  })

  it('says so when it cannot be loaded, and keeps what it has', async () => {
    before({ [PATH]: () => refuse(404, 'not-found', 'There is no such record.') })
    const none = open('r1')
    await settled()
    expect([none.state.value, none.problem.value]).toEqual(['failed', 'There is no such record.'])
    before({ [PATH]: () => page([entry(3)], true) })
    const some = open('r1')
    await settled()
    before({ [PATH]: away })
    await some.loadOlder()
    expect([some.state.value, shown(some), some.more.value]).toEqual(['ready', ['e3'], true])
    expect(some.problem.value).toMatch(/cannot be reached/)
  })
})
