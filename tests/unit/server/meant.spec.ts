import { v7 as uuid } from 'uuid'
import { takeCallEvent } from '~~/server/calling/events'
import { myShelf } from '~~/server/calling/mine'
import { recordForm } from '~~/shared/schemas/record'
import { readRecord } from '~~/server/pages/record'
import { addRecord } from '~~/server/records/save'
import { takeEvent } from '~~/server/texting/events'
import { sayForWhom } from '~~/server/timeline/meant'
import { readTimeline } from '~~/server/timeline/read'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, later, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
  fakeExchange()
})

let numbers = 0
let seconds = 0
const next = () => later(DAY, 1_000 * ++seconds)
/** A couple with one telephone, both with Ada. */
async function couple() {
  const number = `808 555 01${String(40 + numbers++).padStart(2, '0')}`
  const iris = await makeLead(firm.ada, { firstName: 'Iris', lastName: 'Couple' }, number)
  const joss = await makeLead(firm.ada, { firstName: 'Joss', lastName: 'Couple' }, number)
  return { iris: iris.recordId, joss: joss.recordId, e164: iris.e164 }
}
async function textFrom(from: string, text: string): Promise<void> {
  const at = next()
  await takeEvent('practice', { id: uuid(), at, kind: 'received', ref: uuid(), from, to: firm.portland.e164, text }, at)
}
/** What stands on a record, newest first, and with whom it is where it is with somebody else. */
const on = async (recordId: string, asker = firm.ada) =>
  (await readTimeline(asker, recordId)).entries
    .filter(({ kind }) => kind.endsWith('-in'))
    .map(({ words, kind, meantFor }) => [words ?? kind, meantFor?.name ?? null])
const entryOf = async (recordId: string, words: string) =>
  (await readTimeline(firm.ada, recordId)).entries.find(one => one.words === words)!.id

describe('a number that two people share', () => {
  it('is said on both', async () => {
    const { iris, joss, e164 } = await couple()
    expect((await readRecord(firm.ada, iris, DAY)).sharing).toEqual([{ e164, id: joss, name: 'Joss Couple' }])
    expect((await readRecord(firm.ada, joss, DAY)).sharing).toEqual([{ e164, id: iris, name: 'Iris Couple' }])
  })

  it('has its texts with the one for whom somebody says they were, then and from then on, until it is said of the other', async () => {
    const { iris, joss, e164 } = await couple()
    await textFrom(e164, 'first')
    expect([await on(iris), await on(joss)]).toEqual([[['first', null]], [['first', null]]])
    await sayForWhom(firm.ada, await entryOf(iris, 'first'), joss, next())
    await textFrom(e164, 'second')
    expect(await on(joss)).toEqual([['second', null], ['first', null]])
    expect(await on(iris)).toEqual([['second', 'Joss Couple'], ['first', 'Joss Couple']])
    await sayForWhom(firm.ada, await entryOf(iris, 'second'), iris, next())
    await textFrom(e164, 'third')
    expect(await on(iris)).toEqual([['third', null], ['second', null], ['first', 'Joss Couple']])
  })

  it('has its calls with the one for whom somebody says they were, on the shelf too', async () => {
    const { iris, joss, e164 } = await couple()
    const at = next()
    await takeCallEvent('practice', { kind: 'incoming', id: uuid(), ref: uuid(), key: null, line: firm.portland.e164, remote: e164, at }, at)
    const called = async () => (await myShelf(firm.ada, at)).calls.find(call => call.remote === e164)!
    const first = (await called()).record!.id
    const other = first === iris ? joss : iris
    const entry = (await readTimeline(firm.ada, iris)).entries.find(one => one.call?.remote === e164)!
    await sayForWhom(firm.ada, entry.id, other, next())
    expect((await called()).record!.id).toBe(other)
    expect(await on(first)).toEqual([['call-in', other === iris ? 'Iris Couple' : 'Joss Couple']])
  })

  it('is settled between teams by who leads both, and by nobody for a record without the number', async () => {
    const { iris, joss, e164 } = await couple()
    await textFrom(e164, 'hands off')
    const entry = await entryOf(iris, 'hands off')
    const { recordId: other } = await makeLead(firm.mika, { firstName: 'Zadie' })
    await expect(sayForWhom(firm.ada, entry, other, DAY)).rejects.toMatchObject({ details: { status: 422 } })
    await expect(sayForWhom(firm.noor, entry, joss, DAY)).rejects.toMatchObject({ details: { status: 404 } })

    const wren = uuid()
    await addRecord(firm.noor, { ...recordForm.validateSync({ firstName: 'Wren', phones: [{ label: 'mobile', typed: e164 }] }), personIds: [], id: wren, module: 'candidate' }, DAY)
    await expect(sayForWhom(firm.ada, entry, wren, DAY)).rejects.toMatchObject({ details: { status: 404 } })
    await sayForWhom(firm.odile, entry, wren, next())
    expect(await on(wren, firm.noor)).toEqual([['hands off', null]])
    // whoever answers the line still reads it, and cannot take it away
    expect(await on(iris)).toEqual([['hands off', 'somebody of another team']])
    await expect(sayForWhom(firm.ada, entry, iris, DAY)).rejects.toMatchObject({ details: { status: 403, detail: expect.stringContaining('leads both') } })
  })
})
