import { alongWithEntries } from '~~/server/live/along'
import type { Notice } from '~~/shared/live'
import type { TimelineEntry } from '~~/shared/timeline'

const entry = (id: string, words: string) => ({ id, words }) as TimelineEntry
const told = (activityId: string, recordId = 'open'): Notice => ({ kind: 'entry', recordId, activityId })

/** A stream of somebody who has one record open, with readings that are answered when the test says so. */
function streamOf(answer: (ids: string[]) => Promise<TimelineEntry[]>) {
  const pushed: Notice[] = []
  const asked: string[][] = []
  const take = alongWithEntries(recordId => recordId === 'open', (_recordId, ids) => {
    asked.push(ids)
    return answer(ids)
  }, notice => pushed.push(notice))
  return { take, pushed, asked }
}

const settled = () => new Promise(resolve => setTimeout(resolve, 0))

describe('notices of entries', () => {
  it('bring the entry to who has its record open, and to nobody else; other notices go as they are', async () => {
    const { take, pushed } = streamOf(async ids => ids.map(id => entry(id, 'said')))
    for (const notice of [told('a'), told('b', 'closed'), { kind: 'record', recordId: 'open' } as const]) take(notice)
    await settled()
    expect(pushed).toEqual([told('b', 'closed'), { kind: 'record', recordId: 'open' }, { ...told('a'), entry: entry('a', 'said') }])
  })

  it('never bring something older after something newer: what happens while it is read is read afterwards, once', async () => {
    let state = 'waiting'
    const held: (() => void)[] = []
    const { take, pushed, asked } = streamOf((ids) => {
      const words = state
      return new Promise(resolve => held.push(() => resolve(ids.map(id => entry(id, words)))))
    })
    take(told('a'))
    state = 'sent'
    take(told('a'))
    state = 'delivered'
    take(told('a'))
    while (held.length > 0) {
      held.shift()!()
      await settled()
    }
    expect(pushed.map(notice => notice.kind === 'entry' && notice.entry?.words)).toEqual(['waiting', 'delivered'])
    expect(asked).toEqual([['a'], ['a']])
  })

  it('say nothing of what may not be seen, and only that there is something where it cannot be read', async () => {
    const unseen = streamOf(async () => [])
    unseen.take(told('a'))
    const broken = streamOf(async () => Promise.reject(new Error('away')))
    broken.take(told('a'))
    await settled()
    expect([unseen.pushed, broken.pushed]).toEqual([[], [told('a')]])
    broken.take(told('b'))
    await settled()
    expect(broken.pushed).toEqual([told('a'), told('b')])
  })
})
