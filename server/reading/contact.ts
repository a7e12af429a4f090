import { sql } from 'drizzle-orm'
import { contact } from '../db/schema'

/** Joins when somebody was last in touch with a record `r`, as `contact.at`, if anybody ever was. */
export const joinContact = sql`left join ${contact} contact on contact.record_id = r.id and contact.module = r.module`
