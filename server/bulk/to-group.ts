import type { BulkProgress } from '~~/shared/bulk'
import type { BulkToGroupForm } from '~~/shared/schemas/bulk-text'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { changeThose } from '../records/bulk'
import { mustFindGroup } from '../records/groups/one'
import { mustSeeBulk } from './one'
import { peopleOfBulk } from './whom'

/** Puts people of a bulk text into a group, to be called, completed or texted again: piece by piece, as any change of many. */
export async function putBulkInGroup(
  asker: SignedIn,
  bulkId: string,
  { id, groupId, ...those }: BulkToGroupForm,
  now: Date,
): Promise<BulkProgress> {
  const { modules } = await mustSeeBulk(asker, bulkId)
  const group = await mustFindGroup(groupId)
  if (group.conditions) throw badInput({ groupId: `Who is in ${group.name} is found by its rule. Choose a group by hand.` })
  const people = await peopleOfBulk(asker, { bulkId, ...those })
  return changeThose(asker, { id, module: modules[0] ?? 'lead', change: { kind: 'add-group', groupId } }, people, now)
}
