import { gather } from '~~/server/db/gather'

describe('gather', () => {
  it('lets what comes meanwhile go together, each with its own result', async () => {
    const rounds: number[][] = []
    const double = gather<number, number>(3, async (items) => {
      rounds.push(items)
      await new Promise(resolve => setImmediate(resolve))
      return items.map(item => item * 2)
    })
    expect(await Promise.all([1, 2, 3, 4, 5].map(double))).toEqual([2, 4, 6, 8, 10])
    expect(rounds).toEqual([[1], [2, 3, 4], [5]])
  })

  it('fails all that went together, and goes on with the next', async () => {
    const work = gather<number, number>(10, async (items) => {
      if (items.includes(13)) throw new Error('no')
      return items
    })
    const results = await Promise.allSettled([1, 13, 2].map(work))
    expect(results.map(result => result.status)).toEqual(['fulfilled', 'rejected', 'rejected'])
    expect(await work(3)).toBe(3)
  })
})
