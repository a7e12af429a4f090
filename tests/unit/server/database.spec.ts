import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterCommit, tx } from '~~/server/db/door'
import { activity, audit } from '~~/server/db/schema'
import { useDatabase } from '../../support/database'

useDatabase()
const insert = (action: string) => tx(db => db.insert(audit).values({ id: uuid(), at: new Date(), action }))
const count = async (action: string) => (await tx(db => db.execute<{ n: number }>(sql`select count(*)::int as n from audit
  where action = ${action}`))).rows[0]!.n

describe('the one door', () => {
  it('joins what is inside and takes all of it back together', async () => {
    await expect(tx(async () => {
      await insert('inside')
      throw new Error('no')
    })).rejects.toThrow('no')
    expect(await count('inside')).toBe(0)
    await tx(async () => {
      await insert('kept')
      await tx(() => insert('kept'))
    })
    expect(await count('kept')).toBe(2)
  })

  it('acts after the commit only', async () => {
    const acted: string[] = []
    await tx(async () => afterCommit(() => acted.push('yes')))
    await tx(async () => {
      afterCommit(() => acted.push('never'))
      throw new Error('no')
    }).catch(() => {})
    expect(acted).toEqual(['yes'])
    // what is in no transaction has nothing to wait for
    afterCommit(() => acted.push('at once'))
    expect(acted).toEqual(['yes', 'at once'])
  })

  it('goes on after a failed statement', async () => {
    await expect(tx(db => db.execute(sql`select 1 / 0`))).rejects.toThrow()
    await insert('after a failure')
    expect(await count('after a failure')).toBe(1)
  })

  it('keeps many visitors in order, one after the other', async () => {
    await Promise.all(Array.from({ length: 50 }, () => insert('crowd')))
    expect(await count('crowd')).toBe(50)
  })
})

describe('the database', () => {
  it('lets nothing that happened be changed or taken away', async () => {
    const id = uuid()
    await tx(db => db.insert(activity).values({ id, at: new Date(), kind: 'note' }))
    await expect(tx(db => db.execute(sql`update activity set kind = 'call-in'
      where id = ${id}`))).rejects.toMatchObject({ cause: { message: 'activity is only added to' } })
    await expect(tx(db => db.execute(sql`delete from activity
      where id = ${id}`))).rejects.toMatchObject({ cause: { message: 'activity is only added to' } })
  })
})
