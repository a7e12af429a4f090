import { sql } from 'drizzle-orm'
import { check, index, json, pgTable, primaryKey, text, uniqueIndex } from 'drizzle-orm/pg-core'
import type { Conditions } from '../../../core/conditions/conditions'
import { MODULES } from '../../../shared/modules'
import { id, instant, knownValues } from '../columns'
import { colleague } from './identity'
import { record } from './records'

/** People under one name: put in by hand, or all for whom a rule holds, which is asked anew each time. */
export const peopleGroup = pgTable('people_group', {
  id: id().primaryKey(),
  name: text('name').notNull(),
  madeBy: id('made_by').notNull().references(() => colleague.id),
  /** Of whom the rule asks; null for one by hand. */
  module: text('module', { enum: MODULES }),
  conditions: json('conditions').$type<Conditions>(),
  madeAt: instant('made_at').notNull(),
}, table => [
  ...knownValues('people_group', table),
  uniqueIndex('people_group_name').on(sql`lower(${table.name})`),
  check('people_group_rule', sql`(${table.module} is null) = (${table.conditions} is null)`),
])

/** Who was put into a group by hand. */
export const groupMember = pgTable('group_member', {
  groupId: id('group_id').notNull().references(() => peopleGroup.id, { onDelete: 'cascade' }),
  recordId: id('record_id').notNull().references(() => record.id, { onDelete: 'cascade' }),
}, table => [primaryKey({ columns: [table.groupId, table.recordId] }), index('group_member_record').on(table.recordId, table.groupId)])
