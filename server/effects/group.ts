import { sayEffect } from '~~/core/effects/effects'
import type { GroupOn } from '~~/shared/groups'
import { putInGroup } from '../records/groups/members'
import { groupsOfRecords } from '../records/groups/of-records'
import { allGroups, type StoredGroup } from '../records/groups/one'
import { Unfit, unchanged, type EffectWork } from './effect'

interface Kept { groupId: string }
interface Facts { all: StoredGroup[], isIn: GroupOn[] }

const called = (groups: StoredGroup[], groupId: string) => ({ group: groups.find(({ id }) => id === groupId)?.name })

/** The two directions of one thing. */
const grouping = (into: boolean, isSo: string): EffectWork<'add-group' | 'remove-group', Facts, Kept> => ({
  async check(effect) {
    const found = (await allGroups()).find(({ id }) => id === effect.groupId)
    if (!found) throw new Unfit({ groupId: 'There is no such group any more. Choose another one.' })
    if (found.conditions)
      throw new Unfit({ groupId: `Who is in ${found.name} is found by its rule. Choose a group by hand, or set what the rule asks for.` })
    return effect
  },

  async describe() {
    const all = await allGroups()
    return effect => sayEffect(effect, called(all, effect.groupId))
  },

  async facts(_effects, { asker, record }, now) {
    return { all: await allGroups(), isIn: (await groupsOfRecords(asker, record.module, [record.id], now)).get(record.id) ?? [] }
  },

  preview: (effect, { all, isIn }) => ({
    words: sayEffect(effect, called(all, effect.groupId)),
    problem: !called(all, effect.groupId).group
      ? 'The group is gone.'
      : isIn.some(({ id }) => id === effect.groupId) === into ? isSo : null,
  }),

  async perform({ groupId }, _said, _facts, { asker, record, because }, now) {
    return await putInGroup(asker, record.id, groupId, into, now, because) ? { state: 'done', kept: { groupId } } : unchanged(isSo)
  },

  async undo({ groupId }, { asker, record }, now) {
    await putInGroup(asker, record.id, groupId, !into, now)
    return null
  },
})

export const addGroup: EffectWork<'add-group', Facts, Kept> = grouping(true, 'They are in it already.')
export const removeGroup: EffectWork<'remove-group', Facts, Kept> = grouping(false, 'They are not in it.')
