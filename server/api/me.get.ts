import { can, rightsOf, scopeOf } from '~~/shared/permissions'
import { route } from '~~/server/routing/route'
import { clockRules } from '~~/server/records/phones'
import { readHabits } from '~~/server/identity/habits'
import { firmName, teamsNamed } from '~~/server/identity/firm'
import { countAsks } from '~~/server/money/asks'
import { countStuck } from '~~/server/tellers/stuck'
import { thePost } from '~~/server/mail/post'
import { hasUnreadTerms } from '~~/server/identity/terms'
import { readHouseRules } from '~~/server/identity/house-rules'

const TWO_YEARS = 2 * 365 * 86_400_000

export default route({}, async ({ asker, now }) => ({
  id: asker.id,
  name: asker.name,
  firstName: asker.firstName,
  role: asker.role,
  rights: rightsOf(asker),
  helpsUntil: asker.helpsUntil ?? null,
  title: asker.title,
  firm: await firmName(),
  ...await readHouseRules(),
  ...await readHabits(asker.id),
  /** Whether this Plauder can mail. */
  mails: thePost() !== null,
  /** How much is stuck, for an admin. */
  stuck: await countStuck(asker),
  /** How many could not text for want of money, for an admin. */
  asks: can(asker, 'money.edit', {}) ? await countAsks() : 0,
  /** They have to read the terms of use before they text. */
  termsUnread: scopeOf(asker, 'line.answer') !== 'none' && await hasUnreadTerms(asker.id),
  teams: await teamsNamed(asker.teamIds),
  /** Rules of the reader's own zone, from the server's data: a browser's may be older than the law. */
  zone: clockRules([asker.zone], now, TWO_YEARS)[0],
}))
