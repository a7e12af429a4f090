import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { lostAgainstAnother, untilItStands } from '~~/server/db/clash'
import { afterCommit, inTurns, once, savepoint, tx } from '~~/server/db/door'
import { isAway } from '~~/server/db/failures'
import { audit } from '~~/server/db/schema'
import { useDatabase } from '../../support/database'

const failure = (code: string) => Object.assign(new Error('Failed query'), { cause: { code } })

describe('work that another transaction was in the way of', () => {
  it.each(['40001', '40P01'])('is done again until it stands (%s)', async (code) => {
    const alone: boolean[] = []
    expect(await untilItStands(async (isAlone) => {
      alone.push(isAlone)
      if (alone.length < 6) throw failure(code)
      return 'stands'
    })).toBe('stands')
    // whoever has lost three times has the house for itself
    expect(alone).toEqual([false, false, false, true, true, true])
  })

  it('looks once more at a row that is there already, and gives up what can never stand', async () => {
    let tries = 0
    const failing = (code: string) => untilItStands(async () => {
      tries++
      throw failure(code)
    })
    for (const [code, most] of [['23505', 2], ['22012', 1], ['40001', 12]] as const) {
      tries = 0
      await expect(failing(code)).rejects.toThrow('Failed query')
      expect([code, tries]).toEqual([code, most])
    }
    await expect(untilItStands(() => Promise.reject(new Error('no')))).rejects.toThrow('no')
    expect([failure('40001'), new Error('no'), undefined].map(lostAgainstAnother)).toEqual([true, false, false])
  })
})

describe('transactions beside each other', () => {
  useDatabase()
  const count = async (action: string) => (await once<{ n: number }>(sql`select count(*)::int as n from ${audit}
    where action = ${action}`)).rows[0]!.n
  const write = (action: string) => tx(database => database.insert(audit).values({ id: uuid(), at: new Date(), action }))

  it('come out as if they had run in turns: of two who see that nobody is there, one goes in', async () => {
    const enter = () => tx(async () => {
      if (await count('inside') > 0) return false
      await new Promise(resolve => setTimeout(resolve, 5))
      await write('inside')
      return true
    })
    const went = await Promise.all(Array.from({ length: 8 }, enter))
    expect(went.filter(Boolean)).toHaveLength(1)
    expect(await count('inside')).toBe(1)
  })

  it('act once after the commit, however often they were tried', async () => {
    const acted: number[] = []
    let tries = 0
    const addOne = (to: number) => tx(async () => {
      tries++
      const before = await count('counted')
      await write('counted')
      afterCommit(() => acted.push(to))
      return before
    })
    const seen = await Promise.all([1, 2, 3, 4, 5, 6].map(addOne))
    expect([...seen].sort()).toEqual([0, 1, 2, 3, 4, 5])
    expect([...acted].sort()).toEqual([1, 2, 3, 4, 5, 6])
    expect(tries).toBeGreaterThanOrEqual(6)
  })

  it('leave nothing of one that lost, even where a part of it was taken back', async () => {
    let tries = 0
    await tx(async () => {
      tries++
      await write('kept part')
      // what is made of the failure does not matter: who lost must not commit
      await savepoint(async () => {
        if (tries === 1 && !inTurns()) throw failure('40001')
      }).catch(() => {})
    })
    expect(tries).toBe(inTurns() ? 1 : 2)
    expect(await count('kept part')).toBe(1)
  })
})

describe('a database that is away', () => {
  const withCode = (code: string, message = 'x') => Object.assign(new Error(message), { code })
  it.each<[string, unknown]>([
    ['refuses to be connected to', withCode('ECONNREFUSED')],
    ['drops the line', new Error('Failed query', { cause: withCode('ECONNRESET') })],
    ['goes in the middle of a statement', new Error('Failed query', { cause: new Error('Connection terminated unexpectedly') })],
    ['is shut down by its administrator', withCode('57P01')],
    ['has no more room for connections', withCode('53300')],
    ['has lost its connection', new Error('x', { cause: withCode('08006') })],
  ])('is known where it %s', (_, error) => {
    expect(isAway(error)).toBe(true)
  })

  it.each<[string, unknown]>([
    ['a duplicate', withCode('23505')],
    ['a fault of ours', new TypeError('x is not a function')],
    ['a carrier that refuses', new TypeError('fetch failed', { cause: withCode('ECONNREFUSED', 'connect') })],
    ['nothing', null],
  ])('is not taken for %s', (_, error) => {
    expect(isAway(error)).toBe(false)
  })
})
