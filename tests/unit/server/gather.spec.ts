import { gather } from '~~/server/db/gather'

/** Stands for the database's one connection, which is free after a moment. */
const soon = async <T>(work: () => Promise<T>) => {
  await new Promise(resolve => setImmediate(resolve))
  return work()
}

describe('gather', () => {
  it('lets what comes while the database is busy go together, each with its own result', async () => {
    const rounds: number[][] = []
    const double = gather<number, number>(3, async (items) => {
      rounds.push(items)
      return items.map(item => item * 2)
    }, soon)
    expect(await Promise.all([1, 2, 3, 4, 5].map(double))).toEqual([2, 4, 6, 8, 10])
    expect(rounds).toEqual([[1, 2, 3], [4, 5]])
  })

  it('fails none for the sake of another', async () => {
    const work = gather<number, number>(10, async (items) => {
      if (items.includes(13)) throw new Error('no')
      return items
    }, soon)
    const results = await Promise.allSettled([1, 13, 2].map(work))
    expect(results.map(result => result.status)).toEqual(['fulfilled', 'rejected', 'fulfilled'])
    expect(await work(3)).toBe(3)
  })

  it('fails all that waits when the database cannot be had', async () => {
    const work = gather<number, number>(10, async items => items, () => Promise.reject(new Error('closed')))
    const results = await Promise.allSettled([1, 2].map(work))
    expect(results.map(result => result.status)).toEqual(['rejected', 'rejected'])
  })
})
