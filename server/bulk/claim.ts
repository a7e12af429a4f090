import { sql } from 'drizzle-orm'
import { bulkPerson, bulkText } from '../db/schema'
import { queueClaimed } from '../texting/queue'

/**
 * Writes somebody's text of a bulk text if it is their turn: the bulk text goes on in this turn, and they have not got it. Both are asked,
 * and they are marked, in the statement that writes the text: nobody is marked without a text or gets two, and whoever pauses or stops it
 * waits for this one, and no other begins after that.
 */
export const queueForTurn = queueClaimed<{ bulkId: string, turn: number }>(value => sql`
  going as (
    select id from ${bulkText} where id = ${value('bulkId')}::uuid and state = 'running' and turn = ${value('turn')}::int for share
  ), claimed as (
    update ${bulkPerson} set standing = 'texted', changed_at = ${value('now')}::timestamptz
    where id = ${value('id')}::uuid and standing = 'ready' and exists (select 1 from going) and exists (select 1 from asked)
    returning id
  )`)
