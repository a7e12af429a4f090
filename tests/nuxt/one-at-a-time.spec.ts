import { oneAtATime } from '~/composables/one-at-a-time'

/** Work that ends when it is told to. */
function held() {
  const ends: { well: () => void, badly: () => void }[] = []
  const run = oneAtATime(() => new Promise((resolve, reject) => ends.push({ well: resolve, badly: () => reject(new Error('away')) })))
  return { run, ends, turn: () => new Promise(resolve => setTimeout(resolve)) }
}

describe('work of which one run at a time is enough', () => {
  it('runs once more for all who asked while it ran, and not before', async () => {
    const { run, ends, turn } = held()
    const first = run()
    const [second, third] = [run(), run()]
    await turn()
    expect(ends).toHaveLength(1)
    ends[0]!.well()
    await first
    await turn()
    expect(ends).toHaveLength(2)
    ends[1]!.well()
    await Promise.all([second, third])
    expect(ends).toHaveLength(2)
  })

  it('runs at once when nothing runs, and again after it has failed', async () => {
    const { run, ends, turn } = held()
    const first = run()
    const second = run()
    ends[0]!.badly()
    await expect(first).rejects.toThrow('away')
    await turn()
    expect(ends).toHaveLength(2)
    ends[1]!.well()
    await second
  })
})
