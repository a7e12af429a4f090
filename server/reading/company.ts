import { sql, type SQL } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import { record } from '../db/schema'
import { seesRecord } from './visible'

/** Joins the `company` of a record `r`, if the asker may see it: a link to one tells nothing of it to others. */
export const joinCompany = (asker: Asker): SQL => sql`
  left join ${record} company on company.id = r.company_id
    and ${seesRecord(asker, 'company')}`
