import { index, pgTable, primaryKey } from 'drizzle-orm/pg-core'
import { id, instant } from '../columns'
import { colleague } from './identity'
import { conversation } from './texting'

/** Of which wait somebody has been mailed: once for each. */
export const mailedWait = pgTable('mailed_wait', {
  colleagueId: id('colleague_id').notNull().references(() => colleague.id),
  conversationId: id('conversation_id').notNull().references(() => conversation.id, { onDelete: 'cascade' }),
  since: instant('since').notNull(),
  at: instant('at').notNull(),
}, table => [primaryKey({ columns: [table.colleagueId, table.conversationId, table.since] }), index('mailed_wait_at').on(table.at)])
