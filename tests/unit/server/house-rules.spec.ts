import { readHouseRules, saveHouseRules } from '~~/server/identity/house-rules'
import { sendText } from '~~/server/texting/send'
import { houseRulesForm } from '~~/shared/schemas/house-rules'
import { tx } from '~~/server/db/door'
import { audit } from '~~/server/db/schema'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())
const rules = { takeBackSeconds: 5, knockMinutes: 5, waitsMinutes: 30, bulkMost: 200, hotTags: ['hot'] }
const seconds = (takeBackSeconds: unknown) => houseRulesForm.validateSync({ ...rules, takeBackSeconds })

describe('the rules of the house', () => {
  it('say for how long a text can be taken back', async () => {
    const carrier = fakeCarrier()
    await saveHouseRules(firm.rafe, seconds(12), DAY)
    const lead = await makeLead(firm.ada)
    await sendText(firm.ada, textTo(lead.phoneId, firm.portland), DAY)
    await drain(later(DAY, 11_999))
    expect(carrier.asked).toHaveLength(0)
    await drain(later(DAY, 12_000))
    expect(carrier.asked).toHaveLength(1)
    await saveHouseRules(firm.rafe, seconds(0), DAY)
    await sendText(firm.ada, textTo(lead.phoneId, firm.portland, { text: 'And at once.' }), DAY)
    await drain(DAY)
    expect(carrier.asked).toHaveLength(2)
  })

  it('are an admin’s to change, and each change is in the audit log', async () => {
    for (const who of [firm.ada, firm.odile])
      await expect(saveHouseRules(who, seconds(3), DAY)).rejects.toMatchObject({ details: { status: 403 } })
    await saveHouseRules(firm.rafe, seconds(7), DAY)
    expect(await readHouseRules()).toEqual({ ...rules, takeBackSeconds: 7 })
    expect(
      (await tx(database => database.select().from(audit))).filter(({ action }) => action === 'house-rules-changed').at(-1)!.details,
    ).toMatchObject({ to: { takeBackSeconds: 7 } })
    for (const wrong of [-1, 61, 1.5, 'soon', undefined]) expect(() => seconds(wrong)).toThrow()
  })
})
