import { sql, type SQL } from 'drizzle-orm'
import type { BulkChange } from '~~/shared/bulk'
import { MOST_TAGS } from '~~/shared/schemas/record'
import { at } from '../db/instants'
import { colleague, groupMember, peopleGroup, record, teamMember } from '../db/schema'
import { canBeIn, nameOfStage } from '../reading/stages'

/** What one kind of change does to a record `r`, and how it is undone from what was kept of it, `k.before`. */
interface Effect {
  /** Whether it would change anything. */
  differs: SQL
  /** What it does to those in `was`. */
  change: Change
  /** What is kept, to be given back. */
  before: SQL
  /** Whether it still is as the change left it. */
  still: SQL
  giveBack: Change
  /** The value in words, before and after. */
  words: SQL
  entry: { kind: 'stage-changed' | 'fields-changed' | 'group-changed', field: string, label: string }
}

/**
 * A change as a statement.
 * @property does gives of each record `id`, `owner_id`, `team_id` and the value in `words` as it is now
 * @property besides what it changes elsewhere, as a further part of the same statement
 */
interface Change { does: SQL, besides?: SQL }

const writes = (set: SQL, words: SQL): Change => ({
  does: sql`update ${record} r set ${set}, version = r.version + 1 from was k where r.id = k.id
    returning r.id, r.owner_id, r.team_id, ${words} as words`,
})

/** Membership is no part of a record: its version stays, so that whoever edits the record meanwhile is not stopped. */
const puts = (besides: SQL, words: SQL): Change => ({
  does: sql`select r.id, r.owner_id, r.team_id, ${words} as words from ${record} r join was on was.id = r.id`,
  besides,
})

/** With the owner the record goes to one of the owner's teams, if it is in none of them. */
const teamFor = (ownerId: SQL) => sql`coalesce(
  (select m.team_id from ${teamMember} m where m.colleague_id = ${ownerId} and m.team_id = r.team_id),
  (select m.team_id from ${teamMember} m where m.colleague_id = ${ownerId} order by m.team_id limit 1), r.team_id)`

const tagged = (tag: string) => sql`r.tags @> array[${tag}]::text[]`
const TAG_WORDS = sql`nullif(array_to_string(r.tags, ', '), '')`
const TAGS = {
  words: TAG_WORDS,
  before: sql`'{}'::jsonb`,
  entry: { kind: 'fields-changed', field: 'tags', label: 'Tags' },
} as const
const addsTag = (tag: string) => writes(sql`tags = r.tags || array[${tag}]::text[]`, TAG_WORDS)
const removesTag = (tag: string) => writes(sql`tags = array_remove(r.tags, ${tag})`, TAG_WORDS)

const isMember = (groupId: string) => sql`exists (select 1 from ${groupMember} m where m.group_id = ${groupId}::uuid and m.record_id = r.id)`
const nameOf = (groupId: string) => sql`(select g.name from ${peopleGroup} g where g.id = ${groupId}::uuid)`
/** What an entry says: into the group from none, or out of it into none. */
const GROUPS = { before: sql`'{}'::jsonb`, entry: { kind: 'group-changed', field: 'groups', label: 'Groups' } } as const
const NOBODYS = sql`null::text`
// of a group that has been removed in the middle there is nothing left to be in
const putsIn = (groupId: string) => puts(sql`insert into ${groupMember} (group_id, record_id)
  select g.id, was.id from was join ${peopleGroup} g on g.id = ${groupId}::uuid on conflict do nothing`, nameOf(groupId))
const takesOut = (groupId: string) =>
  puts(sql`delete from ${groupMember} m using was where m.group_id = ${groupId}::uuid and m.record_id = was.id`, NOBODYS)

/** @param now when it is done */
export function effectOf(change: BulkChange, now: Date): Effect {
  switch (change.kind) {
    case 'owner': {
      const owner = sql`${change.ownerId}::uuid`
      const words = sql`(select name from ${colleague} where id = r.owner_id)`
      return {
        differs: sql`r.owner_id <> ${owner}`,
        change: writes(sql`owner_id = ${owner}, team_id = ${teamFor(owner)}`, words),
        before: sql`jsonb_build_object('ownerId', r.owner_id, 'teamId', r.team_id)`,
        still: sql`r.owner_id = ${owner}`,
        giveBack: writes(sql`owner_id = (k.before ->> 'ownerId')::uuid, team_id = (k.before ->> 'teamId')::uuid`, words),
        words,
        entry: { kind: 'fields-changed', field: 'owner', label: 'Owner' },
      }
    }
    case 'stage': {
      const stageId = sql`${change.stageId}::uuid`
      const words = nameOfStage(sql`r.stage_id`)
      return {
        differs: sql`(r.stage_id is distinct from ${stageId} and ${canBeIn(stageId)})`,
        change: writes(sql`stage_id = ${stageId}, stage_since = ${at(now)}`, words),
        before: sql`jsonb_build_object('stageId', r.stage_id, 'since', r.stage_since)`,
        still: sql`r.stage_id = ${stageId}`,
        giveBack: writes(sql`stage_id = (k.before ->> 'stageId')::uuid, stage_since = (k.before ->> 'since')::timestamptz`, words),
        words,
        entry: { kind: 'stage-changed', field: 'stage', label: 'Stage' },
      }
    }
    case 'add-tag': return {
      ...TAGS,
      differs: sql`(not ${tagged(change.tag)} and cardinality(r.tags) < ${sql.raw(String(MOST_TAGS))})`,
      change: addsTag(change.tag),
      still: tagged(change.tag),
      giveBack: removesTag(change.tag),
    }
    case 'remove-tag': return {
      ...TAGS,
      differs: tagged(change.tag),
      change: removesTag(change.tag),
      still: sql`not ${tagged(change.tag)}`,
      giveBack: addsTag(change.tag),
    }
    case 'add-group': return {
      ...GROUPS,
      differs: sql`not ${isMember(change.groupId)}`,
      change: putsIn(change.groupId),
      still: isMember(change.groupId),
      giveBack: takesOut(change.groupId),
      words: sql`case when ${isMember(change.groupId)} then ${nameOf(change.groupId)} end`,
    }
    case 'remove-group': return {
      ...GROUPS,
      differs: isMember(change.groupId),
      change: takesOut(change.groupId),
      still: sql`not ${isMember(change.groupId)}`,
      giveBack: putsIn(change.groupId),
      words: sql`case when ${isMember(change.groupId)} then ${nameOf(change.groupId)} end`,
    }
  }
}

export const differs = (change: BulkChange): SQL => effectOf(change, new Date(0)).differs
