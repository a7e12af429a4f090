import { v7 as uuid } from 'uuid'
import { eq } from 'drizzle-orm'
import { tx } from '~~/server/db/door'
import { disposition, firm as firmTable, line } from '~~/server/db/schema'
import { readSetUp } from '~~/server/pages/set-up'
import { useDatabase } from '../../support/database'
import { DAY, makeFirm, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())

const toDo = async (who: Firm['rafe']) => (await readSetUp(who, DAY)).toDo.map(({ what }) => what)

describe('the front page of Set-up', () => {
  it('counts what is there, and says what keeps people from working', async () => {
    expect((await readSetUp(firm.rafe, DAY)).facts).toMatchObject({ lines: 4, closedLines: 0, colleagues: 5, teams: 2, textingOn: true })
    expect(await toDo(firm.rafe)).toEqual([
      '4 lines have no greeting.', 'There are no dispositions for leads and clients and candidates.', 'There are no templates.',
    ])
    await tx(async (database) => {
      await database.update(firmTable).set({ textingOn: false })
      await database.update(line).set({ state: 'paused' }).where(eq(line.id, firm.own.id))
      const one = { name: 'Spoken to', family: 'reached' as const, letter: 'r', position: 0, effects: [] }
      await database.insert(disposition).values(['lead' as const, 'client' as const].map(module => ({ ...one, id: uuid(), module })))
    })
    expect(await toDo(firm.rafe)).toEqual([
      'Texting is switched off.', '3 lines have no greeting.', 'There are no dispositions for candidates.', 'There are no templates.',
    ])
  })

  it('tells a lead what a lead puts right, and a rep nothing', async () => {
    expect(await toDo(firm.odile)).toEqual(['There are no dispositions for candidates.', 'There are no templates.'])
    await expect(readSetUp(firm.ada, DAY)).rejects.toMatchObject({ details: { status: 403 } })
  })
})
