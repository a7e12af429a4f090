import { sql, type SQL } from 'drizzle-orm'
import { activity, activityContent, activityOnRecord } from '../db/schema'

// Parts of statements for those who write entries and the rest in one: nobody else says how entries are kept.

/** @param entries rows of an id, at, kind, who did it or null, the id of its message or null, and data */
export const happens = (entries: SQL): SQL => sql`
  insert into ${activity} (id, at, kind, colleague_id, message_id, data) ${entries} returning id`

/** @param words rows of an entry's id, its words or null, and personal data or null */
export const isSaid = (words: SQL): SQL => sql`
  insert into ${activityContent} (activity_id, words, data) ${words}`

/**
 * @param places rows of a record's id, at, an entry's id, and via, privately and along, each or null; where it shows
 * already nothing happens
 */
export const isShown = (places: SQL): SQL => sql`
  insert into ${activityOnRecord} (record_id, at, activity_id, via_record_id, private_line_id, along_line_id) ${places}
  on conflict do nothing returning record_id, at, activity_id, along_line_id`

/** The same, by a colleague's hand. */
export const isShownByHand = (places: SQL): SQL => sql`
  insert into ${activityOnRecord} (record_id, at, activity_id, via_record_id, private_line_id, along_line_id, by_hand)
  select placed.*, true from (${places}) placed
  on conflict do nothing returning record_id, at, activity_id, along_line_id`

/** Takes off a record again what was shown there by hand. @param entries ids */
export const isTakenOff = (recordId: string, entries: SQL): SQL => sql`
  delete from ${activityOnRecord} where record_id = ${recordId}::uuid and by_hand and activity_id = any(array(${entries}))
  returning activity_id`
