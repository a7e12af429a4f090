import { and, eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { hasNumbers, MODULE_FACTS } from '~~/shared/modules'
import { tx } from '../../db/door'
import { groupMember } from '../../db/schema'
import { appendEntry } from '../../activity/append'
import { conflict } from '../../http/problem'
import type { SignedIn } from '../../identity/sign-in'
import { announce } from '../../live/notices'
import { authorize, type StoredRecord } from '../one'
import { setOwnField } from '../set-field'
import { tagRecord } from '../tag'
import { announceGroup, mirrorOf, mustFindGroup, type StoredGroup } from './one'

/**
 * Puts a record into a group, or takes it out. Of a group by a field that is the field: the record gets it, or loses it.
 *
 * @param because what set it off, such as a call: kept with the entry
 * @returns whether that changed anything
 * @throws Problem 409 for a group whose people a rule finds, or of other records
 */
export async function putInGroup(
  asker: SignedIn,
  recordId: string,
  groupId: string,
  isIn: boolean,
  now: Date,
  because: object = {},
): Promise<boolean> {
  return tx(async () => {
    const found = await authorize(asker, 'record.edit', recordId)
    const group = await mustFindGroup(groupId)
    mustSuit(group, found)
    const put = group.conditions ? putByField : putByHand
    const changed = await put({ asker, found, group, isIn, now, because })
    if (changed) announceGroup(groupId)
    return changed
  })
}

function mustSuit(group: StoredGroup, { module, name }: StoredRecord): void {
  if (group.conditions && !mirrorOf(group))
    throw conflict('by-rule', 'By a rule', `Who is in ${group.name} is found by its rule. Change the rule, or the record.`)
  if (group.module !== null && group.module !== module)
    throw conflict('other-records', 'Of other records', `${group.name} is a group of ${MODULE_FACTS[group.module].many.toLowerCase()}; ${name} is none.`)
  if (!hasNumbers(module)) throw conflict('other-records', 'Of other records', `${MODULE_FACTS[module].many} cannot be put into a group.`)
}

interface Put { asker: SignedIn, found: StoredRecord, group: StoredGroup, isIn: boolean, now: Date, because: object }

async function putByHand({ asker, found, group, isIn, now, because }: Put): Promise<boolean> {
  return tx(async (database) => {
    const row = { groupId: group.id, recordId: found.id }
    const changed = isIn
      ? await database.insert(groupMember).values(row).onConflictDoNothing().returning({ id: groupMember.recordId })
      : await database.delete(groupMember).where(and(eq(groupMember.groupId, group.id), eq(groupMember.recordId, found.id)))
          .returning({ id: groupMember.recordId })
    if (changed.length === 0) return false
    const data = { ...because, groupId: group.id, [isIn ? 'to' : 'from']: group.name }
    await appendEntry({ id: uuid(), at: now, kind: 'group-changed', colleagueId: asker.id, data }, [found.id])
    announce({ kind: 'record', recordId: found.id }, 'record.see', [found])
    return true
  })
}

async function putByField({ asker, found, group, isIn, now, because }: Put): Promise<boolean> {
  const mirrored = mirrorOf(group)!
  if (mirrored.what === 'tag') return tagRecord(asker, found.id, mirrored.tag, isIn, now, because)
  const { key, value } = mirrored
  const has = found.fields[key] === value
  if (has === isIn) return false
  await setOwnField(asker, found.id, key, isIn ? value : null, now, { because })
  return true
}
