import { eq } from 'drizzle-orm'
import { tx } from '~~/server/db/door'
import { audit, firm as firmTable, message } from '~~/server/db/schema'
import { acceptTerms, readTerms, readTexting, switchTexting, writeTerms } from '~~/server/identity/terms'
import { sendText } from '~~/server/texting/send'
import { TAKE_BACK_MS } from '~~/shared/texting'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
const LEFT = later(DAY, TAKE_BACK_MS)
beforeAll(async () => firm = await makeFirm())

async function send(who: Firm['ada'], text = 'Hi Iris.', line = firm.portland) {
  const { phoneId } = await makeLead(firm.ada)
  const form = textTo(phoneId, line, { text })
  await sendText(who, form, DAY)
  return form.id
}
const stateOf = async (id: string) => {
  const [found] = await tx(database =>
    database.select({ state: message.state, code: message.code }).from(message).where(eq(message.id, id)))
  return [found!.state, found!.code]
}
const refused = (type: string) => ({ details: { type } })

describe('terms of use', () => {
  it('keep nobody from texting as long as there are none', async () => {
    fakeCarrier()
    expect(await readTerms(firm.ada)).toEqual({ terms: null, unread: false })
    await send(firm.ada)
  })

  it('are read by everybody before their next text, once for each version', async () => {
    fakeCarrier()
    await writeTerms(firm.rafe, { words: 'Be kind.', after: null }, DAY)
    await expect(send(firm.ada)).rejects.toMatchObject(refused('terms-unread'))
    await acceptTerms(firm.ada, 1, DAY)
    await acceptTerms(firm.ada, 1, later(DAY, 1_000))
    await send(firm.ada)
    await expect(send(firm.mika)).rejects.toMatchObject(refused('terms-unread'))

    // the same words again are no new version
    await writeTerms(firm.rafe, { words: 'Be kind.', after: 1 }, DAY)
    await send(firm.ada, 'And again')
    await writeTerms(firm.rafe, { words: 'Be kind, and brief.', after: 1 }, later(DAY, 60_000))
    // of two who write at once the second is told
    await expect(writeTerms(firm.rafe, { words: 'Be brief.', after: 1 }, later(DAY, 61_000))).rejects.toMatchObject(refused('terms-changed'))
    await expect(acceptTerms(firm.ada, 1, DAY)).rejects.toMatchObject(refused('terms-changed'))
    await expect(send(firm.ada)).rejects.toMatchObject(refused('terms-unread'))
    expect(await readTerms(firm.ada)).toMatchObject({ terms: { version: 2, words: 'Be kind, and brief.' }, unread: true })
    await acceptTerms(firm.ada, 2, DAY)

    const { readers, version } = await readTexting(firm.rafe)
    expect(version).toBe(2)
    const read = Object.fromEntries(readers.map(one => [one.name, one.version]))
    // whoever wrote them has read them
    expect(read).toMatchObject({ 'Ada Lund': 2, 'Rafe Pennington': 2, 'Mika Sand': null })
    const noted = await tx(database => database.select({ details: audit.details }).from(audit).where(eq(audit.action, 'terms-accepted')))
    expect(noted.map(({ details }) => details)).toEqual([{ version: 1 }, { version: 2 }])
  })

  it('are written, and texting is switched, by admins alone', async () => {
    for (const work of [writeTerms(firm.odile, { words: 'Mine', after: 2 }, DAY), switchTexting(firm.odile, { on: false }, DAY), readTexting(firm.ada)])
      await expect(work).rejects.toMatchObject({ details: { status: 403 } })
  })
})

describe('texting that is switched off', () => {
  beforeAll(async () => void await switchTexting(firm.rafe, { on: false }, DAY))

  it('is for admins alone, whose texts leave; what others had under way is held', async () => {
    const carrier = fakeCarrier()
    await tx(database => database.update(firmTable).set({ textingOn: true }))
    const adas = await send(firm.ada, 'Under way')
    await switchTexting(firm.rafe, { on: false }, DAY)
    await expect(send(firm.ada)).rejects.toMatchObject(refused('texting-off'))
    const rafes = await send(firm.rafe, 'Only trying')
    await drain(LEFT)
    expect(carrier.asked.map(({ text }) => text)).toContain('Only trying')
    expect(await stateOf(adas)).toEqual(['held', 'texting-off'])
    expect(await stateOf(rafes)).toEqual(['accepted', null])
  })

  it('is switched on by an admin who has read the terms', async () => {
    await writeTerms({ ...firm.odile, role: 'admin' }, { words: 'Be kind, brief and honest.', after: 2 }, DAY)
    await expect(switchTexting(firm.rafe, { on: true }, DAY)).rejects.toMatchObject({ details: { fields: { on: expect.stringMatching(/Read the terms/) } } })
    await acceptTerms(firm.rafe, 3, DAY)
    expect(await switchTexting(firm.rafe, { on: true }, DAY)).toMatchObject({ on: true, version: 3 })
    await acceptTerms(firm.ada, 3, DAY)
    fakeCarrier()
    await send(firm.ada)
  })
})
