import { eq } from 'drizzle-orm'
import { can, type Belongs, type Permission } from '~~/shared/permissions'
import { read } from '../../db/door'
import { callRound } from '../../db/schema'
import { notAllowed, notFound } from '../../http/problem'
import type { SignedIn } from '../../identity/sign-in'
import { announce } from '../../live/notices'

export type StoredRound = typeof callRound.$inferSelect

/** To whom a round belongs. */
export const roundBelongs = ({ madeBy, teamId }: Pick<StoredRound, 'madeBy' | 'teamId'>): Belongs => ({ ownerId: madeBy, teamId })

/** Tells those who work it. */
export const announceRound = (round: Pick<StoredRound, 'id' | 'madeBy' | 'teamId'>): void =>
  announce({ kind: 'round', roundId: round.id }, 'round.work', [roundBelongs(round)])

/** @throws Problem 404 for a round that one may not see, 403 for what one may not do with it */
export async function mustHoldRound(
  asker: SignedIn,
  id: string,
  permission: Extract<Permission, `round.${string}`> = 'round.work',
): Promise<StoredRound> {
  const [found] = await read(database => database.select().from(callRound).where(eq(callRound.id, id)))
  if (!found || !can(asker, 'round.work', roundBelongs(found))) throw notFound('round')
  if (!can(asker, permission, roundBelongs(found))) throw notAllowed(`change the round ${found.name}`)
  return found
}
