import { inTurn } from './door'

interface Waiting<Item, Result> { item: Item, resolve: (result: Result) => void, reject: (error: unknown) => void }

/**
 * Lets calls that come while the database is busy go together, in one statement: with one connection,
 * many small commits in a row become few. Where a statement fails, each of its items is tried alone, so
 * that none fails for another's sake.
 *
 * Never call it inside of a `tx`: what others ask would become part of that transaction.
 *
 * @param most items that go together
 * @param work one statement, which gives a result for each item, in their order
 * @param turn waits until the database is free
 */
export function gather<Item, Result>(
  most: number,
  work: (items: Item[]) => Promise<Result[]>,
  turn: typeof inTurn = inTurn,
): (item: Item) => Promise<Result> {
  const waiting: Waiting<Item, Result>[] = []
  let busy = false

  async function go(): Promise<void> {
    busy = true
    while (waiting.length > 0) {
      let together: Waiting<Item, Result>[] = []
      try {
        const results = await turn(() => {
          // only now, when the connection is ours: whoever came while it was busy goes along; done again, it is the same ones
          if (together.length === 0) together = waiting.splice(0, most)
          return work(together.map(({ item }) => item))
        })
        together.forEach(({ resolve }, index) => resolve(results[index]!))
      }
      catch (error) {
        if (together.length > 1) await eachAlone(together)
        else if (together.length === 1) together[0]!.reject(error)
        else waiting.splice(0).forEach(({ reject }) => reject(error))
      }
    }
    busy = false
  }

  async function eachAlone(items: Waiting<Item, Result>[]): Promise<void> {
    for (const { item, resolve, reject } of items) {
      await turn(() => work([item])).then(([result]) => resolve(result!), reject)
    }
  }

  return item =>
    new Promise((resolve, reject) => {
      waiting.push({ item, resolve, reject })
      if (!busy) void go()
    })
}
