import { can } from '~~/shared/permissions'
import type { HouseRulesForm } from '~~/shared/schemas/house-rules'
import { read, tx } from '../db/door'
import { firm } from '../db/schema'
import { notAllowed } from '../http/problem'
import { note } from './audit'
import type { SignedIn } from './sign-in'

/** What the firm has set for everybody. */
export async function readHouseRules(): Promise<HouseRulesForm> {
  const [found] = await read(database => database.select({
    takeBackSeconds: firm.takeBackSeconds,
    knockMinutes: firm.knockMinutes,
    waitsMinutes: firm.waitsMinutes,
    bulkMost: firm.bulkMost,
    hotTags: firm.hotTags,
  }).from(firm))
  return found!
}

export async function saveHouseRules(asker: SignedIn, form: HouseRulesForm, now: Date): Promise<HouseRulesForm> {
  if (!can(asker, 'rules.edit', {})) throw notAllowed('change the rules of the house; an admin does')
  return tx(async (database) => {
    const from = await readHouseRules()
    await database.update(firm).set(form)
    await note('house-rules-changed', asker.id, now, { from, to: form })
    return readHouseRules()
  })
}
