import type { moneyAccount, moneyEntry } from '../server/db/schema'
import type { Staff } from './generate'
import { idAt, type Rows } from './rows'

/** So much is paid in whenever less than that is left. */
const PAID_IN = 40_000_000
const LEAST = 6_000_000

/** The ledger of all that the demo's texts have cost, with what was paid in before it ran out: the sums are the accounts, as ever. */
export function moneyRows(rows: Rows, staff: Staff): { accounts: (typeof moneyAccount.$inferInsert)[], entries: (typeof moneyEntry.$inferInsert)[] } {
  const entries: (typeof moneyEntry.$inferInsert)[] = []
  const lineOf = new Map([...rows.conversations.values()].map(({ id, lineId }) => [id, lineId!]))
  const texts = rows.messages.filter(({ costMicros }) => costMicros).sort((a, b) => a.madeAt.getTime() - b.madeAt.getTime())
  let balanceMicros = 0
  for (const { id, conversationId, authorId, costMicros, currency, acceptedAt } of texts) {
    const at = acceptedAt!
    if (balanceMicros < LEAST) {
      const paidAt = new Date(at.getTime() - 60_000)
      entries.push({ id: idAt(paidAt), at: paidAt, kind: 'paid-in', currency: currency!, micros: PAID_IN, enteredBy: staff.colleagues.rafe!, words: 'Card' })
      balanceMicros += PAID_IN
    }
    entries.push({ id: idAt(at), at, kind: 'text', currency: currency!, micros: -costMicros!, messageId: id, lineId: lineOf.get(conversationId)!, colleagueId: authorId })
    balanceMicros -= costMicros!
  }
  return { accounts: [{ currency: 'USD', prepaid: true, balanceMicros }], entries }
}
