import { sql, type SQL } from 'drizzle-orm'
import type { BulkChange } from '~~/shared/bulk'
import { MOST_TAGS } from '~~/shared/schemas/record'
import { at } from '../db/instants'
import { colleague, teamMember } from '../db/schema'
import { canBeIn, nameOfStage } from '../reading/stages'

/** What one kind of change does to a record `r`, and how it is undone from what was kept of it, `k.before`. */
interface Effect {
  /** Whether it would change anything. */
  differs: SQL
  set: SQL
  /** What is kept, to be given back. */
  before: SQL
  /** Whether it still is as the change left it. */
  still: SQL
  giveBack: SQL
  /** The value in words, before and after. */
  words: SQL
  entry: { kind: 'stage-changed' | 'fields-changed', field: string, label: string }
}

/** With the owner the record goes to one of the owner's teams, if it is in none of them. */
const teamFor = (ownerId: SQL) => sql`coalesce(
  (select m.team_id from ${teamMember} m where m.colleague_id = ${ownerId} and m.team_id = r.team_id),
  (select m.team_id from ${teamMember} m where m.colleague_id = ${ownerId} order by m.team_id limit 1), r.team_id)`

const tagged = (tag: string) => sql`r.tags @> array[${tag}]::text[]`
const TAGS = {
  words: sql`nullif(array_to_string(r.tags, ', '), '')`,
  before: sql`'{}'::jsonb`,
  entry: { kind: 'fields-changed', field: 'tags', label: 'Tags' },
} as const

/** @param now when it is done */
export function effectOf(change: BulkChange, now: Date): Effect {
  switch (change.kind) {
    case 'owner': {
      const owner = sql`${change.ownerId}::uuid`
      return {
        differs: sql`r.owner_id <> ${owner}`,
        set: sql`owner_id = ${owner}, team_id = ${teamFor(owner)}`,
        before: sql`jsonb_build_object('ownerId', r.owner_id, 'teamId', r.team_id)`,
        still: sql`r.owner_id = ${owner}`,
        giveBack: sql`owner_id = (k.before ->> 'ownerId')::uuid, team_id = (k.before ->> 'teamId')::uuid`,
        words: sql`(select name from ${colleague} where id = r.owner_id)`,
        entry: { kind: 'fields-changed', field: 'owner', label: 'Owner' },
      }
    }
    case 'stage': {
      const stageId = sql`${change.stageId}::uuid`
      return {
        differs: sql`(r.stage_id is distinct from ${stageId} and ${canBeIn(stageId)})`,
        set: sql`stage_id = ${stageId}, stage_since = ${at(now)}`,
        before: sql`jsonb_build_object('stageId', r.stage_id, 'since', r.stage_since)`,
        still: sql`r.stage_id = ${stageId}`,
        giveBack: sql`stage_id = (k.before ->> 'stageId')::uuid, stage_since = (k.before ->> 'since')::timestamptz`,
        words: nameOfStage(sql`r.stage_id`),
        entry: { kind: 'stage-changed', field: 'stage', label: 'Stage' },
      }
    }
    case 'add-tag': return {
      ...TAGS,
      differs: sql`(not ${tagged(change.tag)} and cardinality(r.tags) < ${sql.raw(String(MOST_TAGS))})`,
      set: sql`tags = r.tags || array[${change.tag}]::text[]`,
      still: tagged(change.tag),
      giveBack: sql`tags = array_remove(r.tags, ${change.tag})`,
    }
    case 'remove-tag': return {
      ...TAGS,
      differs: tagged(change.tag),
      set: sql`tags = array_remove(r.tags, ${change.tag})`,
      still: sql`not ${tagged(change.tag)}`,
      giveBack: sql`tags = r.tags || array[${change.tag}]::text[]`,
    }
  }
}

export const differs = (change: BulkChange): SQL => effectOf(change, new Date(0)).differs
