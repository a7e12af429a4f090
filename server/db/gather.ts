/**
 * Lets calls that come while one is under way go together: the first goes at once, the others share the
 * next. With one connection, many small commits in a row become few.
 *
 * Never call it inside of a `tx`: what others ask would become part of that transaction.
 *
 * @param most items that go together
 * @param work gives a result for each item, in their order; if it fails, all of them fail
 */
export function gather<Item, Result>(most: number, work: (items: Item[]) => Promise<Result[]>): (item: Item) => Promise<Result> {
  let waiting: { item: Item, resolve: (result: Result) => void, reject: (error: unknown) => void }[] = []
  let busy = false

  async function go(): Promise<void> {
    busy = true
    while (waiting.length > 0) {
      const together = waiting.slice(0, most)
      waiting = waiting.slice(most)
      try {
        const results = await work(together.map(({ item }) => item))
        together.forEach(({ resolve }, index) => resolve(results[index]!))
      }
      catch (error) {
        for (const { reject } of together) reject(error)
      }
    }
    busy = false
  }

  return item => new Promise((resolve, reject) => {
    waiting.push({ item, resolve, reject })
    if (!busy) void go()
  })
}
