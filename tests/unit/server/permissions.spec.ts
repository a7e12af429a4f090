import { sql } from 'drizzle-orm'
import fc from 'fast-check'
import { can, PERMISSIONS, SCOPES, type Asker, type Permission } from '~~/shared/permissions'
import { tx } from '~~/server/db/door'
import { visible } from '~~/server/reading/visible'
import { useDatabase } from '../../support/database'

useDatabase()
const ids = Array.from({ length: 6 }, (_, i) => `01a00000-0000-7000-8000-00000000000${i}`)
const someId = fc.constantFrom(...ids)
const asker: fc.Arbitrary<Asker> = fc.record({
  id: someId,
  role: fc.constantFrom('rep', 'lead', 'admin'),
  teamIds: fc.subarray(ids),
  peopleIds: fc.subarray(ids),
  // whatever an admin has changed
  rights: fc.dictionary(fc.constantFrom(...Object.keys(PERMISSIONS)), fc.constantFrom(...SCOPES)),
})
const belongs = fc.record({ ownerId: fc.option(someId), teamId: fc.option(someId) })

describe('can() and visible()', () => {
  it('say the same of every thing, for every right, role, team and owner', async () => {
    await fc.assert(
      fc.asyncProperty(
        asker,
        fc.constantFrom(...(Object.keys(PERMISSIONS) as Permission[])),
        fc.array(belongs, { minLength: 1, maxLength: 20 }),
        async (who, permission, things) => {
          const rows = sql.join(
            things.map((thing, i) => sql`(${i}::int, ${thing.ownerId}::uuid, ${thing.teamId}::uuid)`),
            sql`, `,
          )
          const seen = await tx(database =>
            database.execute<{ i: number }>(sql`select i from (values ${rows}) thing (i, owner, team)
        where ${visible(who, permission, { owner: sql`owner`, team: sql`team` })} order by i`),
          )
          expect(seen.rows.map(row => row.i)).toEqual(things.flatMap((thing, i) => (can(who, permission, thing) ? [i] : [])))
        },
      ),
      { numRuns: 300 },
    )
  })

  it('give an admin all and a rep what is theirs or their team\'s', () => {
    const rep: Asker = { id: ids[0]!, role: 'rep', teamIds: [ids[1]!], peopleIds: [ids[0]!, ids[2]!] }
    expect(can(rep, 'record.see', { teamId: ids[1] })).toBe(true)
    expect(can(rep, 'record.see', { ownerId: ids[0], teamId: ids[5] })).toBe(true)
    expect(can(rep, 'record.see', { ownerId: ids[2], teamId: ids[5] })).toBe(false)
    expect(can({ ...rep, role: 'lead' }, 'record.see', { ownerId: ids[2], teamId: ids[5] })).toBe(true)
    expect(can({ ...rep, role: 'admin' }, 'record.see', { ownerId: ids[5], teamId: ids[5] })).toBe(true)
    expect(can(rep, 'template.edit', { ownerId: ids[2] })).toBe(false)
  })
})
