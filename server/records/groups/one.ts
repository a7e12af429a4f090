import { eq, sql } from 'drizzle-orm'
import { mirroredBy, type Mirrored } from '~~/core/groups/mirror'
import type { GroupWay } from '~~/shared/groups'
import { read } from '../../db/door'
import { peopleGroup } from '../../db/schema'
import { notFound } from '../../http/problem'
import { announce } from '../../live/notices'

export type StoredGroup = typeof peopleGroup.$inferSelect

/** Every group, by name. */
export const allGroups = (): Promise<StoredGroup[]> =>
  read(database => database.select().from(peopleGroup).orderBy(sql`${peopleGroup.name} collate "und-x-icu"`))

/** @throws Problem 404 where there is none, or none any more */
export async function mustFindGroup(id: string): Promise<StoredGroup> {
  const [found] = await read(database => database.select().from(peopleGroup).where(eq(peopleGroup.id, id)))
  if (!found) throw notFound('group')
  return found
}

/** What whoever is put into it gets; null where people are in it by hand or by a rule that asks for more. */
export const mirrorOf = ({ conditions }: StoredGroup): Mirrored | null => conditions && mirroredBy(conditions)

export const wayOf = (group: StoredGroup): GroupWay => !group.conditions ? 'hand' : mirrorOf(group) ? 'field' : 'rule'

/** Tells everybody: a group is everybody's. */
export const announceGroup = (groupId: string, removed = false): void =>
  announce({ kind: 'group', groupId, ...removed && { removed } }, 'group.see', [{}])
